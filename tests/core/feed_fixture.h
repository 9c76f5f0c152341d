#pragma once
/// An antenna of the demo with what was solved for its feed.

#include "core/study/feed.h"
#include "tests/core/demo.h"

#include <gtest/gtest.h>

namespace vetchling::testing {

/// With everything that Feed works on.
struct Worked {
    Demo demo;
    study::Library library;
    study::References references;
    study::FeedBasis basis;
    std::vector<ChainPart> parts;
    std::size_t own = 0;

    explicit Worked(const std::string& name, const Against& against = {})
    {
        demo.design.operation.against = against;
        const Antenna& a = demo.antenna(name);
        const auto answer = study::feedBasisOf(library, references, study::feedQuestionOf(demo.design, a));
        EXPECT_TRUE(answer.ok()) << answer.firstFault();
        basis = *answer;
        parts = wholeChain(a);
        own = parts.size() - chainParts(a).size();
    }
    [[nodiscard]] Id band(const std::string& name) const
    {
        for (const WantedBand& w : demo.design.operation.bands)
            if (w.band.name == name)
                return w.id;
        return {};
    }
};

} // namespace vetchling::testing
