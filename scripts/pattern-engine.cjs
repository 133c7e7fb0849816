// Tests check patterns as the server does.
const { LINEAR_PATTERNS } = require('../packages/core/src/fields/linear-patterns');
const { installPatternEngine } = require('../packages/core/src/fields/pattern');

installPatternEngine(LINEAR_PATTERNS);
