export { NewUnitScreen as default } from '../../rig/NewUnitScreen';
