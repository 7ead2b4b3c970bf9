export { RigScreen as default } from '../../../rig/RigScreen';
