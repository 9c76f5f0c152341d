#include "cli/commands.h"

int main(int argc, char** argv) { return vetchling::cli::run(argc, argv); }
