export { roomGrid } from './room-grid';
export { planStabbing } from './plan-stabbing';
export { blockPlanesOf, isClear, missingPairs, pocketsAlong, witnessPairs, type Witnesses } from './sight-lines';
export { smallCollection } from './small-collection';
export { smallPng } from './small-png';
