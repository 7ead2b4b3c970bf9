export { RuleSetScreen as default } from '../../rules/RuleSetScreen';
