export { HuntScreen as default } from '../../../hunt/HuntScreen';
