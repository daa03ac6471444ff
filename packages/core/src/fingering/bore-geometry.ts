import * as z from 'zod';

const millimetres = z.number().positive().max(5000);

const boreHoleSchema = z.strictObject({
  hole: z.string().min(1).max(8),
  /** From the excitation (reed or window) to the middle of the hole, along the bore. */
  positionMillimetres: millimetres,
  diameterMillimetres: millimetres,
  /** Length of the hole through the wall. */
  chimneyMillimetres: millimetres,
  /** Radius of the hole under the usual half cover over its radius when open, 0 to 1. */
  halfRadiusFactor: z.number().positive().max(1),
});

const shape = {
  /** Straight cones joined from the excitation to the foot. */
  bore: z
    .array(z.strictObject({ positionMillimetres: z.number().min(0).max(5000), diameterMillimetres: millimetres }))
    .min(2)
    .max(20),
  holes: z.array(boreHoleSchema).min(1).max(16),
  outerDiameterMillimetres: millimetres,
};

/** An air column with side holes, blown by a reed or at a window. */
export const boreGeometrySchema = z.discriminatedUnion('excitation', [
  z.strictObject({ excitation: z.literal('reed'), ...shape, reedVolumeCubicMillimetres: z.number().min(0).max(20_000) }),
  z.strictObject({
    excitation: z.literal('window'),
    ...shape,
    /** Acoustic length of the air in the window, and how it grows with frequency. */
    windowLengthMillimetres: z.number().min(0).max(200),
    windowSlope: z.number().min(-1).max(1),
    windowReferenceHertz: z.number().positive(),
  }),
]);
export type BoreGeometry = Readonly<z.infer<typeof boreGeometrySchema>>;

/** A vessel whose pitch depends on the open area alone. */
export const vesselGeometrySchema = z.strictObject({
  excitation: z.literal('vessel'),
  vesselMillilitres: z.number().positive().max(5000),
  windowConductanceMillimetres: z.number().positive().max(200),
  wallMillimetres: z.number().positive().max(50),
  /** From the lowest to the highest natural, in cents: how much breath bends, half of it down and half of it up. */
  breathBendCents: z.number().min(0).max(400),
  holes: z
    .array(z.strictObject({ hole: z.string().min(1).max(8), diameterMillimetres: millimetres }))
    .min(1)
    .max(16),
});
export type VesselGeometry = Readonly<z.infer<typeof vesselGeometrySchema>>;

export const soundGeometrySchema = z.discriminatedUnion('excitation', [...boreGeometrySchema.options, vesselGeometrySchema]);
export type SoundGeometry = BoreGeometry | VesselGeometry;
