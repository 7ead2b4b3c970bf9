export { EditUnitScreen as default } from '../../../rig/EditUnitScreen';
