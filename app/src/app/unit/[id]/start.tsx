export { StartScreen as default } from '../../../start/StartScreen';
