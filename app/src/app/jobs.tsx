export { JobsScreen as default } from '../jobs/JobsScreen';
