import react from "@vitejs/plugin-react"
import { defineConfig } from "vite"
import { compression } from "vite-plugin-compression2"
import { VitePWA } from "vite-plugin-pwa"

// Chakra's system of tokens and styles and what it is made with; nothing of it knows React
const OF_SYSTEM = new RegExp(
  [
    "src/app/theme|@pandacss|@(zag-js|ark-ui)/.*anatomy|@zag-js/types|chakra-ui/react/dist/esm/",
    "(theme/|preset-base|anatomy|utils/(clone|compact|create-props|cx|entries|flatten|is|memo|merge|omit|",
    "split-props|uniq|walk-object)\\.js|styled-system/(breakpoints|calc|color-mix|conditions|config|css|css-var|",
    "cva|esc|expand-reference|layers|map-to-json|merge-config|normalize|preflight|references|",
    "resolve-token-value|serialize|singleton|sort-at-params|sort-at-rules|sva|system|token-dictionary|",
    "token-middleware|token-transforms|unit-conversion|utility)\\.js)",
  ].join(""),
)

export default defineConfig({
  plugins: [
    react(),
    // the server sends what is packed here as tightly as it goes, and need not pack it at each visit
    compression({ algorithms: ["brotliCompress"], include: /assets\/.*\.(js|css)$/ }),
    VitePWA({
      registerType: "prompt", // a page in use is not exchanged under the hand
      injectRegister: null, // by the application itself: the content policy knows no inline script
      includeAssets: ["icon.svg", "apple-touch-icon.png"],
      manifest: {
        name: "Fenwa",
        short_name: "Fenwa",
        description: "Water, feed and salt for orchids, carnivorous plants and tropicals",
        id: "/",
        start_url: "/",
        scope: "/",
        display: "standalone",
        background_color: "#f2f4f4",
        theme_color: "#15252b",
        icons: [
          { src: "icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "icon-512.png", sizes: "512x512", type: "image/png" },
          {
            src: "icon-maskable-512.png",
            sizes: "512x512",
            type: "image/png",
            purpose: "maskable",
          },
          { src: "icon.svg", sizes: "any", type: "image/svg+xml" },
        ],
        shortcuts: [
          { name: "Pour", url: "/pour" },
          { name: "Quick sums", url: "/sums" },
          { name: "Look", url: "/look" },
        ],
      },
      workbox: {
        globPatterns: ["**/*.{js,css,html,woff2,svg,png,webmanifest}"],
        // answers of the API are kept by the pages themselves, each where it can be told to be old
        navigateFallbackDenylist: [/^\/api\//, /^\/sign-in/],
        cleanupOutdatedCaches: true,
      },
    }),
  ],
  build: {
    target: "es2022",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700, // what every view needs: 230 kB when compressed
    rolldownOptions: {
      // without it every recipe of Chakra would be sent: calls at a module's top are kept if they may do something
      treeshake: {
        manualPureFunctions: ["defineConfig", "defineRecipe", "defineSlotRecipe", "createAnatomy"],
      },
      output: {
        // a view asks for three files, not for thirty small ones
        codeSplitting: {
          includeDependenciesRecursively: false,
          groups: [
            {
              name: "system", // what start.ts works out while the rest is on its way
              test: (id) => OF_SYSTEM.test(id),
              priority: 9,
            },
            { name: "first", test: /src.sendForPage|vite.preload-helper/, priority: 8 },
            { name: "scales", test: /node_modules.d3-/, priority: 5 }, // for drawings with an axis
            { name: "vendor", test: /node_modules/, priority: 3, minShareCount: 20 },
            {
              name: "forms",
              test: /react-hook-form|ui.(fields|use\w+Form|EntrySheet|Entry)\./,
              priority: 4,
            },
            {
              name: "lists",
              test: /ui.(CanDrawing|MoreRows|NameLink)\./,
              priority: 2,
            },
            { name: "shared", test: /src.(ui|api|app)./, priority: 1, minShareCount: 12 },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8711" } },
})
