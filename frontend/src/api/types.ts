// Short names for the generated types.
import type { components } from './schema';

type Schemas = components['schemas'];

/** What is answered says everything, also what it would be if it were left out. */
type Whole<T> = T extends object ? { [K in keyof T]-?: Whole<T[K]> } : T;

export type Box = Schemas['Box'];
export type Command = Schemas['Change']['command'];
export type DrawingCard = Whole<Schemas['DrawingCard']>;
export type DrawingCards = Whole<Schemas['DrawingCards']>;
export type DrawingState = Whole<Schemas['DrawingState']>;
export type DrawingHistory = Whole<Schemas['DrawingHistory']>;
export type Entries = Whole<Schemas['Entries']>;
export type Figure = Whole<Schemas['Figure']>;
export type HistoryState = Whole<Schemas['HistoryState']>;
export type Node = NonNullable<Entries['nodes'][string]>;
export type Outcome = Schemas['TileResult']['outcome'];
export type Compared = Whole<Schemas['Compared']>;
export type Contours = Whole<Schemas['Contours']>;
export type RegionMap = Whole<Schemas['RegionMap']>;
export type RegionSpot = Whole<Schemas['RegionSpot']>;
export type RegionPick = Schemas['RegionPick'];
export type PickedRegion = Schemas['PickedRegion'];
export type Placement = Schemas['Placement'];
export type Look = Node['look'];
export type Gradient = Exclude<NonNullable<Look['fill']>, string>;
export type Piece = Whole<Schemas['Piece']>;
export type PlateHead = Whole<Schemas['PlateHead']>;
export type PlatePicture = Whole<Schemas['PlatePicture']>;
export type PreviewState = Whole<Schemas['PreviewState']>;
export type Problem = Schemas['Problem'];
export type Role = Schemas['Role'];
export type AssetOnShelf = Whole<Schemas['AssetOnShelf']>;
export type AssetPictures = Whole<Schemas['AssetPictures']>;
export type CollectionOnShelf = Whole<Schemas['CollectionOnShelf']>;
export type SectionOnShelf = Whole<Schemas['SectionOnShelf']>;
export type ShelfState = Whole<Schemas['ShelfState']>;
export type ShelfChange = Schemas['ShelfChange']['change'];
export type PutOnShelf = Schemas['PutOnShelf'];
export type KitAnswer = Whole<Schemas['KitAnswer']>;
export type OpenedFile = Whole<Schemas['OpenedFile']>;
export type SharedState = Whole<Schemas['SharedState']>;
export type Outdated = Whole<Schemas['Outdated']>;
export type ExportAnswer = Whole<Schemas['ExportAnswer']>;
export type ExportChoice = Schemas['ExportOrder']['choice'];
export type ExportSubject = Schemas['ExportOrder']['subject'];
export type AssetPicture = Whole<Schemas['AssetPicture']>;
export type CopiedShapes = Schemas['CopiedShapes'];
export type KeptPicture = Schemas['KeptPicture'];
export type PastedShapes = Schemas['PastedShapes'];
export type SnapTargets = Whole<Schemas['SnapTargets']>;
export type Swatch = Schemas['Swatch'];
export type Line = Schemas['Line'];
export type Measured = Whole<Schemas['Measured']>;
export type Tile = Tiles['tiles'][number];
export type Tiles = Whole<Schemas['Tiles']>;
