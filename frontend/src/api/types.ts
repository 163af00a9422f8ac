// Short names for the generated types.
import type { components } from './schema';

type Schemas = components['schemas'];

export type Box = Schemas['Box'];
export type Command = Schemas['Change']['command'];
export type DrawingCard = Schemas['DrawingCard'];
export type DrawingState = Schemas['DrawingState'];
export type Entries = Schemas['Entries'];
export type Figure = Schemas['Figure'];
export type Node = NonNullable<Entries['nodes'][string]>;
export type Outcome = Schemas['Tile']['outcome'];
export type Piece = Schemas['Piece'];
export type PlateHead = Schemas['PlateHead'];
export type PlatePicture = Schemas['PlatePicture'];
export type PreviewState = Schemas['PreviewState'];
export type Problem = Schemas['Problem'];
export type Role = Schemas['Role'];
export type Shelf = Schemas['Shelf'];
export type AssetPicture = Schemas['AssetPicture'];
export type Tile = Schemas['Tile'];
export type Tiles = Schemas['Tiles'];
