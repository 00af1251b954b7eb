declare module '*.scss';
declare module '@fontsource-variable/*';
