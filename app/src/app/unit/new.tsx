export { NewUnitScreen as default } from '../../unit/NewUnitScreen';
