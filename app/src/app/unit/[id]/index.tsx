export { UnitScreen as default } from '../../../unit/UnitScreen';
