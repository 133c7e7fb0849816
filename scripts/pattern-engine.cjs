// Tests check patterns as the server does.
require('../packages/core/src/fields/linear-patterns').installLinearPatterns();
