import { createRoot } from 'react-dom/client';
import { Fares } from './Fares';
import './styles/line.css';

createRoot(document.getElementById('root')!).render(<Fares crossings={[]} />);
