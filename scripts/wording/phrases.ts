/** Words that Stravel does not say, with what it says instead, and where they mean something else. */
export interface Phrase {
  readonly found: RegExp;
  readonly say: string;
  /** Paths, or paths with the text, in which the words are right, with the reason. */
  readonly except?: readonly { readonly where: RegExp; readonly why: string }[];
}

const phrase = (found: RegExp, say: string, ...except: NonNullable<Phrase['except']>[number][]): Phrase => ({
  found,
  say,
  except,
});

/** Names that stored data, files and code keep. */
const STORED = (where: RegExp): { readonly where: RegExp; readonly why: string } => ({
  where,
  why: 'a name in stored data, files or code',
});

export const PHRASES: readonly Phrase[] = [
  phrase(/who is drafting/i, 'Your name'),
  phrase(/\btrial\b/i, 'test', {
    where: /upgrades\/|sets\/write-cells\.ts|formats\/archive\.md/,
    why: 'the word of older files, which is still read',
  }),
  phrase(/^keys$/i, 'Shortcuts', STORED(/shell\/everywhere\.ts|desk\/|cli\//)),
  phrase(/\breach:/i, 'Changes affect …'),
  phrase(/counts (every stratum|shared strata)/, 'Counts switched-off strata too'),
  phrase(
    /\bthings?\b/i,
    'object',
    { where: /demo\/cinderbrine\.ts: For trying/, why: 'content of the demo' },
    STORED(/`things`|\.ts: thing$|\.schema\.json: "things"/),
  ),
  phrase(/\blet(s|ting)? go\b/i, 'Clear selection'),
  phrase(/\b\d* ?chosen\b(?! (for|by))/, 'selected', {
    where: /\.ts: chosen$|docs\/dependencies/,
    why: 'a name of the code',
  }),
  phrase(/\b(take|takes|taken|bring|brings|brought)( \S+)? in\b(?! place)/i, 'import'),
  phrase(/\bgive(s|n)? out\b/i, 'export'),
  phrase(
    /\bcannot be had\b|\bleave it\b(?! empty)|\bstands? in\b(?! for)|\bstood in\b/i,
    'is not available, Cancel, is used in',
  ),
  phrase(/\b(is|are|was) gone\b/i, 'was deleted'),
  phrase(/\b(at most so many|from … on)\b/i, 'Max count, Threshold'),
  phrase(/^(least|most)$/i, 'Min, Max', { where: /\.ts: (least|most)$/, why: 'names of stored fields' }),
  phrase(/rows find their record/i, 'Match rows by'),
  phrase(/new levels stand/i, 'Add new levels to'),
  phrase(/\bgathered by\b|\bin view stay\b|\bkept views\b/i, 'Group by, Frozen columns, Saved views'),
  phrase(
    /\bin order of\b(?! (play|the work))|\brising\b|\bfalling\b|\bplay, by set\b|\bonly levels where\b/i,
    'Sort by, ascending, Filter',
  ),
  phrase(/^whole$|\bwhat stands (where|in)\b|\bthickness shows\b/i, 'Overview, Contents by level, Measure', {
    where: /\.ts: whole$/,
    why: 'part of an address',
  }),
  phrase(/\bstands? out\b|the darker, the more/i, 'Outliers, Darker = more'),
  phrase(/what is ready|\breach over\b/i, 'Readiness rules…, Extend the selection'),
  phrase(/\btakes? (it )?back\b/i, 'Undoes'),
  phrase(/\bmend\b/i, 'Fix'),
  phrase(
    /\bholds a list\b|\b(a value|coordinates|directions?) of (its|one’s|their) own\b/i,
    'Multiple values, Entered by hand',
  ),
  phrase(/what happens to the values/i, 'Effect on existing values'),
  phrase(/\bkinds of (volume|marker)\b|^no kinds$/i, 'Volume kinds, Marker kinds, Plain data'),
  phrase(
    /\bmade of\b(?! (planes|pixels))|\bdraw again\b|\bkeep the pattern\b/i,
    'Characters, Generate again, Save pattern only',
  ),
  phrase(/no level here needs one/i, 'Every level has a code'),
  phrase(/\bnever opens?\b|\bcan open\b|\bopens? (at|after|only|by)\b/i, 'unlock (levels)', {
    where: /demo\/registers\.ts/,
    why: 'a sluice opens',
  }),
  phrase(
    /\badd a gain\b|\bsets? back\b|\bbegin anew\b|\bsame moment\b|\bsend(s)? back\b/i,
    'Reward, Resets on entry, Restart',
  ),
  phrase(/played whole|fires again/i, 'Stays locked even with everything collected, can be triggered again and again'),
  phrase(/\bat hand\b|\bin hand\b|start at the start/i, 'held, selected, Use the default start'),
  phrase(/\botherwise\b/i, 'local changes'),
  phrase(/\bgive( it)? to all\b|\bpart(s|ed)? ways\b/i, 'Change everywhere, Make a separate copy'),
  phrase(/\bwith others\b|\bis felt for\b|show all as usual/i, 'Show other levels…, Density radius, Turn off'),
  phrase(/\bown values\b|\bits zero\b/i, 'Custom values, Origin'),
  phrase(
    /\bdecor\b|\bhollow into\b|\bblocks that hide\b/i,
    'Blocks view: yes, no; Turn into walls…',
    STORED(/: decor$|`decor`|"decor"/),
  ),
  phrase(
    /\bvary by\b|drop to the surface|copies in a row|^way [xyz]$/i,
    'Randomise…, Place on surface, Repeat in a row…, Direction X',
  ),
  phrase(
    /what is like it|all but these|\bset(s)? aside\b|part of the level again/i,
    'Select similar, Invert selection, Parked, Unpark',
  ),
  phrase(/where it leads/i, 'the path’s direction'),
  phrase(/\bgrips?\b|\bknob\b|snaps to nothing/i, 'handles, rotate handle, Hold Alt: no snapping'),
  phrase(/^at line$|^[+−] (row|column)$|may say otherwise/i, 'Row or column, Insert row, Override one square'),
  phrase(/that one may stand on|how one moves/i, 'walkable square, Movement rules'),
  phrase(/lightness from which|told apart/i, 'Threshold, Open pixels by'),
  phrase(/\bbody\b/i, 'player width', STORED(/server\/|guide\/guide-panel\.ts/)),
  phrase(/\bapart$|narrow places, ways|regions, ways/i, 'Not connected, Check passages'),
  phrase(/no way is looked for|map to the level/i, 'Add a spawn and an exit to check the route, Use as level picture'),
  phrase(/^open it$|\bback, to all\b/i, 'Edit for all'),
  phrase(
    /\bbirth chance\b|\basked for\b(?!, with their kits)|to your liking|another seed/i,
    'Split chance, target, New seed',
  ),
  phrase(
    /must be there at|\bdrops? (beyond|sooner)\b|most resident|underfoot|do not cut this level/i,
    'Must be loaded within, Unload beyond, Peak memory',
    STORED(/NOTHING_UNDERFOOT$/),
  ),
  phrase(/one stood|a click stands you/i, 'Click to see the walker at that time'),
  phrase(/coarser steps?|\boff by\b(?! its neighbours)|\bthe one before\b|\bpx off\b/i, 'LODs, Error, the previous'),
  phrase(/takes? (its|the) place/i, 'Replaces'),
  phrase(/\ball round\b|seeing pairs|hidden from here/i, 'in 360°, Visible pairs, Not visible from here'),
  phrase(/\bleaks?\b|dotted line/i, 'open to the outside, arrows', STORED(/: LEAK$/)),
  phrase(/knows its pockets|nothing says where|all that lies outside/i, 'visibility is not computed yet'),
  phrase(/\bheld against\b|\bhold(s)? (a|every|each) \S+ against\b|what is stale/i, 'Device, Bake stale levels, check'),
  phrase(/\bin the way\b|on the way$|neither moved/i, 'errors, Will be baked first, No transform on nodes'),
  phrase(/^sound$/, 'OK, no errors'),
  phrase(/accepted too|over triangles/i, 'Show accepted'),
  phrase(/choose which stands|write mine|met a newer/i, 'Choose which to keep, Keep mine'),
  phrase(/has to say|have one home|what is not valid stays/i, 'shows its status'),
  phrase(/\bby chance\b|\bmakes? it anew\b|\banew\b/i, 'at random, again'),
  phrase(
    /\b1 (levels|objects|specks|strata|cells|links|days|things|rows|codes|findings)\b/,
    'a count with its word from counted()',
  ),
];
