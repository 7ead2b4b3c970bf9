export { JobScreen as default } from '../../job/JobScreen';
