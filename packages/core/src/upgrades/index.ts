import { KNOT_IDS } from './knot-ids';
import { TEST_LEVELS, VIEWS_OF_TEST_LEVELS } from './test-levels';
import { ModelUpgrades } from './model-upgrades';

/** All that ever happened to records and their fields, oldest first. A new one is a file and a line here. */
export const UPGRADES = new ModelUpgrades([KNOT_IDS, TEST_LEVELS, VIEWS_OF_TEST_LEVELS]);

/** The version of the model that this program writes. Log, snapshots, outbox, archives and copied text carry it. */
export const MODEL_VERSION = UPGRADES.version;

/** Header of each request and answer: the version that it is written in. */
export const MODEL_HEADER = 'Stravel-Model';
