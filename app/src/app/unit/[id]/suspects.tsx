export { SuspectsScreen as default } from '../../../suspects/SuspectsScreen';
