// Property tests draw from one seed, so that what is green stays green. STRAVEL_PROPERTY_SEED=random hunts for new cases, a number repeats one hunt.
const fastCheck = require('fast-check');

const asked = process.env.STRAVEL_PROPERTY_SEED ?? '1';
if (asked !== 'random') fastCheck.configureGlobal({ seed: Number(asked) });
