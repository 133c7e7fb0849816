import { Color, MeshStandardMaterial } from 'three';
import type { PieceMesh } from './kit-meshes';

/** What materials are called at large, and how they look; muted, so that marks and paint stay readable on them. */
const WORDS: Readonly<Record<string, string>> = {
  asphalt: '#5d6062',
  brass: '#b0924f',
  brick: '#a8654d',
  clay: '#b5876a',
  cloth: '#8d7488',
  coal: '#4a4c4e',
  concrete: '#a3a19b',
  copper: '#a8745a',
  earth: '#8a7058',
  fabric: '#8d7488',
  glass: '#93b3b6',
  gold: '#bf9d4e',
  grass: '#84935f',
  gravel: '#9d958a',
  ice: '#bcd2d8',
  iron: '#666c70',
  leather: '#8b6248',
  marble: '#d9d5cd',
  metal: '#7d848a',
  moss: '#76835a',
  mud: '#7d6752',
  paper: '#d8cfbc',
  plank: '#a07f5b',
  plaster: '#d6cbb8',
  potash: '#c08a74',
  rock: '#918a80',
  rust: '#96603f',
  salt: '#e2dccf',
  sand: '#cbb489',
  slate: '#707c86',
  snow: '#e6e8e8',
  steel: '#858d93',
  stone: '#a59e91',
  tile: '#a97f68',
  timber: '#9c7a55',
  water: '#67919c',
  wood: '#9c7a55',
};

/** For names that say nothing of how they look. */
const EARTHS = [
  '#b0705a',
  '#95938c',
  '#c4aa7c',
  '#75828d',
  '#a48566',
  '#cfc4b2',
  '#96737d',
  '#b79c8d',
  '#6f8482',
  '#8d8198',
];

/**
 * The colours that blocks have in the model: that of a kit's material of the same name, or else that of what its name says, or else
 * one of a few that the name picks; the same on every machine.
 */
export class MaterialColours {
  private ofKits: ReadonlyMap<string, Color> = new Map();
  private readonly ofNames = new Map<string, Color>();

  /** Takes the materials of kits. @returns whether any colour may be another now */
  setMeshes(meshes: ReadonlyMap<string, PieceMesh>): boolean {
    const found = new Map<string, Color>();
    for (const { steps } of meshes.values())
      for (const { material } of steps[0].parts)
        if (material instanceof MeshStandardMaterial && !found.has(nameKey(material.name)))
          found.set(nameKey(material.name), material.color);
    const before = this.ofKits;
    this.ofKits = found;
    return found.size !== before.size || [...found].some(([name, colour]) => before.get(name)?.equals(colour) !== true);
  }

  of(material: string): Color {
    const name = nameKey(material);
    let colour = this.ofKits.get(name) ?? this.ofNames.get(name);
    if (!colour) this.ofNames.set(name, (colour = new Color(colourOfName(name))));
    return colour;
  }
}

/** By the longest word that a name contains, the last of several: `red sandstone` is stone. */
function colourOfName(name: string): string {
  let [found, at] = ['', -1];
  for (const word of Object.keys(WORDS)) {
    const place = name.lastIndexOf(word);
    if (place < 0) continue;
    const end = place + word.length;
    if (end > at || (end === at && word.length > found.length)) [found, at] = [word, end];
  }
  return found === '' ? EARTHS[numberOf(name) % EARTHS.length] : WORDS[found];
}

const nameKey = (name: string): string => name.trim().toLowerCase();

/** A number that follows from a text. Source: Fowler, Noll and Vo, FNV-1a, 32 bits. */
function numberOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}
