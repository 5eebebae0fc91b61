// Before each file of tests. They run in one process, which loads React and Chakra once; what Fenwa's own modules keep
// (entries that wait, units, the theme) begins anew.
import { vi } from "vitest"

vi.resetModules()
localStorage.clear()
