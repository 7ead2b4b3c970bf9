export { UnsentScreen as default } from '../unsent/UnsentScreen';
