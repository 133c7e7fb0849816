import { installLinearPatterns } from '@stravel/core/linear-patterns';

// Loaded apart, once the first page is drawn: it needs no pattern.
installLinearPatterns();
