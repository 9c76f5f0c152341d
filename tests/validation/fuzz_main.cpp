#include "core/files/json_reader.h"
#include "tests/validation/fuzz.h"

#include <fmt/format.h>

#include <cstdlib>

using namespace vetchling;

/// vetchling_fuzz [count]: so many of each kind; exit 1 if anything broke.
int main(int argc, char** argv)
{
    const unsigned count = argc > 1 ? unsigned(std::atol(argv[1])) : 100000;
    const auto wires = files::readTextFile(VETCHLING_TEST_DATA "/reference/cases/s12_coil_dipole_average.json");
    const auto design = files::readTextFile(VETCHLING_DATA "/demo/gannet-skerry.vetchling");
    if (!wires || !design)
        return 1;
    bool broken = false;
    const auto tell = [&](const char* what, const testing::FuzzCount& c) {
        fmt::print("{}: {} tried, {} answered, {} refused in words; {}\n", what, c.tried, c.answered, c.refused,
                   c.broken.empty() ? "nothing broke" : c.broken);
        std::fflush(stdout);
        broken = broken || !c.broken.empty();
    };
    tell("wire files", testing::fuzzWireFiles(*wires, 1, count));
    tell("designs", testing::fuzzDesigns(*design, 1, count));
    tell("damaged values", testing::fuzzDamage(*design, 1, count / 10));
    tell("measurements", testing::fuzzMeasured(1, count));
    tell("wire models", testing::fuzzModels(1, count));
    return broken ? 1 : 0;
}
