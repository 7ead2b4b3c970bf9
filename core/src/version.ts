/** Version of the arithmetic; every stored outcome names it, so that it can be told when to compute again. */
export const CORE_VERSION = '0.6.0';
