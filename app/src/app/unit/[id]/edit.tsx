export { EditUnitScreen as default } from '../../../unit/EditUnitScreen';
