/** Loaded for what it registers: the processor of an audio worklet. */
declare module 'signalsmith-stretch'
