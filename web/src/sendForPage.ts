// In a script of its own, for it is to run before the system of styles is laid out.
void import("./main")
