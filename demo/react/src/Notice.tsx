import type { ReactNode } from 'react';

export function Notice({ children }: { children: ReactNode }) {
  return (
    <aside>
      <h2 style={{ margin: '0 0 8px', color: '#0b4a5e' }}>Notice</h2>
      <p style={{ padding: '8px 12px', background: '#eef5f3' }}>{children}</p>
      <p style={{ color: '#5d6b70', fontSize: 14 }}>Ask at the quay, or call the harbour office.</p>
    </aside>
  );
}
