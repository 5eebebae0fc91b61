import { defineConfig } from "vitest/config"

export default defineConfig({
  test: {
    environment: "jsdom",
    include: ["src/**/*.test.{ts,tsx}"],
    setupFiles: ["src/testing/eachFile.ts"],
    isolate: false,
    testTimeout: 30_000,
  },
})
