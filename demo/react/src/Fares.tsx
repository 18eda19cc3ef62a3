import styles from './Fares.module.css';
import { Notice } from './Notice';

interface Crossing {
  name: string;
  fare: number;
  sails: boolean;
}

export function Fares({ crossings }: { crossings: Crossing[] }) {
  return (
    <main>
      <h1 style={{ margin: '0 0 8px', color: '#0b4a5e' }}>Fares</h1>
      {crossings.length > 0 ? (
        <table className={styles.table}>
          <thead>
            <tr>
              <th style={{ textAlign: 'left', padding: 6 }}>Crossing</th>
              <th style={{ textAlign: 'left', padding: 6 }}>Fare</th>
            </tr>
          </thead>
          <tbody>
            {crossings.map((one) => (
              <tr key={one.name} className={one.sails ? '' : 'is-shut'}>
                <td style={{ padding: 6 }}>{one.name}</td>
                <td className={styles.amount} style={{ padding: 6, textAlign: 'right' }}>{one.fare.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p style={{ color: '#5d6b70', fontSize: 14 }}>No crossing is on sale.</p>
      )}
      <Notice>Children under six sail free.</Notice>
    </main>
  );
}
