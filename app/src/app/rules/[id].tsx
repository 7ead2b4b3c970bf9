import { laterScreen } from '../../screens/laterScreen';

export default laterScreen((beyond) => beyond.ruleSetScreen());
