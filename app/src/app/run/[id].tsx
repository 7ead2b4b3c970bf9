export { RunScreen as default } from '../../run/RunScreen';
