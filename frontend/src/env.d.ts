declare module '*.vue' {
  import type { DefineComponent } from 'vue';
  const component: DefineComponent;
  export default component;
}
declare module '@fontsource-variable/outfit';
declare module '@fontsource/ibm-plex-mono/latin-400.css';
declare module '*.css';
