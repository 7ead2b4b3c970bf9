export { PedalScreen as default } from '../../../hunt/PedalScreen';
