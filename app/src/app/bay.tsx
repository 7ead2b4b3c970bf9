export { BayScreen as default } from '../bay/BayScreen';
