#include "core/em/mesh.h"

#include "tests/core/helpers.h"

#include <algorithm>

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

TEST(Mesh, CoversTheWireWithoutGapOrOverlap)
{
    const Mesh mesh = makeMesh(dipole(20.0, 10.0), 7.1e6);
    double at = 0.0;
    for (const Element& e : mesh.elements) {
        EXPECT_NEAR(e.from, at, 1e-9);
        EXPECT_NEAR(e.length, e.to - e.from, 1e-9);
        at = e.to;
    }
    EXPECT_NEAR(at, 20.0, 1e-9);
}

// A dipole of N elements has N-1 inner nodes and degree-1 bubbles an element; nothing at the free ends.
TEST(Mesh, CountsUnknownsOfAnOpenWire)
{
    for (int degree : {2, 3, 4}) {
        MeshOptions options;
        options.degree = degree;
        options.symmetry = false;
        const Mesh mesh = makeMesh(dipole(20.0, 10.0), 7.1e6, options);
        EXPECT_EQ(mesh.unknowns, int(mesh.elements.size()) * degree - 1);
    }
}

TEST(Mesh, CountsUnknownsOfAClosedLoop)
{
    const Mesh mesh = makeMesh(fedWire({{0, 0, 5}, {5, 0, 5}, {5, 5, 5}, {0, 5, 5}, {0, 0, 5}}, 2.5), 14e6);
    EXPECT_EQ(mesh.unknowns, int(mesh.elements.size()) * mesh.degree);
}

TEST(Mesh, HasANodeAtEveryFeedLoadAndVertex)
{
    WireModel model = fedWire({{0, 0, 5}, {6, 0, 5}, {6, 8, 5}}, 3.3);
    model.loads.push_back({0, 9.1});
    const Mesh mesh = makeMesh(model, 10e6);
    for (double node : {3.3, 6.0, 9.1})
        EXPECT_TRUE(std::any_of(mesh.elements.begin(), mesh.elements.end(), [&](const Element& e) {
            return std::abs(e.from - node) < 1e-9;
        })) << node;
}

TEST(Mesh, GradesTowardsFeedAndEnds)
{
    const Mesh mesh = makeMesh(dipole(20.0, 10.0), 7.1e6);
    const auto [shortest, longest] = std::minmax_element(mesh.elements.begin(), mesh.elements.end(),
                                                         [](const Element& a, const Element& b) { return a.length < b.length; });
    EXPECT_LT(shortest->length, 0.08);        // some tens of radii
    EXPECT_GT(shortest->length, 10.0 * 1e-3); // never below ten
    EXPECT_LT(longest->length, wavelength(7.1e6) / 4.0);
    EXPECT_LT(mesh.elements.front().length, 0.1);
    EXPECT_LT(mesh.elements.back().length, 0.1);
    for (std::size_t i = 1; i < mesh.elements.size(); ++i) { // no neighbour more than ten times as long
        const double ratio = mesh.elements[i].length / mesh.elements[i - 1].length;
        EXPECT_LT(std::max(ratio, 1.0 / ratio), 12.0);
    }
}

TEST(Mesh, FinenessAndElementCountRefine)
{
    MeshOptions fine;
    fine.fineness = 3.0;
    EXPECT_GT(makeMesh(dipole(20.0, 10.0), 7.1e6, fine).unknowns, 1.1 * makeMesh(dipole(20.0, 10.0), 7.1e6).unknowns);
    MeshOptions many;
    many.elementsPerWavelength = 40.0;
    EXPECT_GT(makeMesh(dipole(20.0, 10.0), 7.1e6, many).elements.size(), 18u);
}

/// Current out of a joint through each element end, for one unknown.
double sumOfCurrents(const Mesh& mesh, int unknown, Vec3 joint)
{
    double sum = 0.0;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e)
        for (const Share& s : mesh.shares[e]) {
            if (s.unknown != unknown || s.function > 1)
                continue;
            const bool atStart = s.function == 0;
            if (distance(atStart ? mesh.elements[e].start : mesh.elements[e].end, joint) < 1e-6)
                sum += atStart ? s.factor : -s.factor;
        }
    return sum;
}

// Kirchhoff's law by construction: whatever the unknowns, currents out of a joint sum to zero.
TEST(Mesh, JointOfFiveWiresObeysKirchhoff)
{
    WireModel model;
    model.wires = {wire("a", {{0, 0, 5}, {5, 0, 5}}), wire("b", {{0, 0, 5}, {0, 5, 5}}), wire("c", {{-5, 0, 5}, {0, 0, 5}}),
                   wire("d", {{0, 0, 5}, {0, -5, 4}}), wire("e", {{0, 0, 9}, {0, 0, 5}})};
    model.feeds.push_back({0, 0.0, 1.0});
    const Mesh mesh = makeMesh(model, 14e6);
    int touching = 0;
    for (int u = 0; u < mesh.unknowns; ++u) {
        EXPECT_NEAR(sumOfCurrents(mesh, u, {0, 0, 5}), 0.0, 1e-12);
        for (std::size_t e = 0; e < mesh.elements.size(); ++e)
            for (const Share& s : mesh.shares[e])
                touching += s.unknown == u && s.function < 2 &&
                            (distance(mesh.elements[e].start, {0, 0, 5}) < 1e-6 || distance(mesh.elements[e].end, {0, 0, 5}) < 1e-6);
    }
    EXPECT_GE(touching, 8); // four unknowns, two ends each
    EXPECT_FALSE(mesh.feeds[0].empty());
}

TEST(Mesh, EndOnPerfectGroundCarriesCurrent)
{
    const WireModel model = fedWire({{0, 0, 0}, {0, 0, 10}}, 0.0, perfectGround);
    const Mesh mesh = makeMesh(model, 7.1e6);
    EXPECT_EQ(mesh.unknowns, int(mesh.elements.size()) * mesh.degree); // one more than a wire in the air
    EXPECT_FALSE(mesh.feeds[0].empty());
}

// A feed's current is the mean over its gap: the same along a constant current, whatever the mesh; its width follows the wire.
TEST(Mesh, FeedSeesTheMeanCurrentOfItsGap)
{
    for (double fineness : {1.0, 8.0, 64.0})
        for (double radius : {1e-3, 0.05}) {
            MeshOptions options;
            options.fineness = fineness;
            const Mesh mesh = makeMesh(fedWire({{0, 0, 5}, {10, 0, 5}}, 5.0, freeSpace, radius), 14e6, options);
            std::vector<double> even(mesh.unknowns); // 1 A everywhere but at the ends
            for (std::size_t e = 0; e < mesh.elements.size(); ++e)
                for (const Share& s : mesh.shares[e])
                    if (s.function < 2)
                        even[s.unknown] = s.factor;
            double sum = 0.0;
            for (const auto& [unknown, factor] : mesh.feeds[0])
                sum += factor * even[unknown];
            EXPECT_NEAR(sum, 1.0, 1e-12) << fineness << " " << radius;
        }
}

TEST(Mesh, UnknownsAreInOrderOfDegree)
{
    const Mesh mesh = makeMesh(fedWire({{0, 0, 5}, {4, 0, 8}, {10, 0, 5}}, 3.0), 14e6);
    ASSERT_EQ(int(mesh.levelStarts.size()), mesh.degree);
    for (const auto& shares : mesh.shares)
        for (const Share& s : shares) {
            const int level = std::max(0, s.function - 1); // ends are level 0, B_2 level 1
            EXPECT_GE(s.unknown, mesh.levelStarts[level]);
            const int end = level + 1 < mesh.degree ? mesh.levelStarts[level + 1] : mesh.unknowns;
            EXPECT_LT(s.unknown, end);
        }
}

TEST(Mesh, IsFinerAtEndsAndFeedsThanAtBends)
{
    const Mesh mesh = makeMesh(fedWire({{0, 0, 5}, {10, 0, 5}, {10, 10, 5}}, 4.0), 14e6);
    const auto sizeAt = [&](Vec3 p) {
        double size = HUGE_VAL;
        for (const Element& e : mesh.elements)
            if (distance(e.start, p) < 1e-6 || distance(e.end, p) < 1e-6)
                size = std::min(size, e.length);
        return size;
    };
    const double atBend = sizeAt({10, 0, 5});
    EXPECT_LT(sizeAt({0, 0, 5}), 0.5 * atBend);
    EXPECT_LT(sizeAt({4, 0, 5}), 0.5 * atBend);
    EXPECT_GT(atBend, 20e-3); // twenty radii
}

TEST(Mesh, VerticesMeetWithinTheTolerance)
{
    WireModel model;
    model.wires = {wire("a", {{0, 0, 5}, {5, 0, 5}}), wire("b", {{5.0000004, 0, 5}, {5, 5, 5}})};
    model.feeds.push_back({0, 2.5, 1.0});
    const Mesh mesh = makeMesh(model, 14e6);
    EXPECT_EQ(mesh.unknowns, int(mesh.elements.size()) * mesh.degree - 1);
}

TEST(Mesh, BreaksOfACloseNeighbourAreFaced)
{
    WireModel model = dipole(10.0, 5.0);
    model.wires.push_back(wire("beside", {{-6, 0.03, 5}, {6, 0.03, 5}}));
    const Mesh mesh = makeMesh(model, 14e6);
    const auto nodeAt = [&](std::size_t w, double at) {
        return std::any_of(mesh.elements.begin(), mesh.elements.end(),
                           [&](const Element& e) { return e.wire == w && std::abs(e.from - at) < 1e-9; });
    };
    EXPECT_TRUE(nodeAt(1, 6.0)); // the feed
    EXPECT_TRUE(nodeAt(1, 1.0)); // the ends of the fed wire
    EXPECT_TRUE(nodeAt(1, 11.0));
    model.wires[1].points = {{-6, 3.0, 5}, {6, 3.0, 5}}; // far off: nothing to face
    EXPECT_LT(makeMesh(model, 14e6).elements.size(), mesh.elements.size());
}

TEST(Mesh, TaperedWireHasLinearRadius)
{
    WireModel model = dipole(10.0, 8.0);
    model.wires[0].radius = 0.01;
    model.wires[0].endRadius = 0.002;
    const Mesh mesh = makeMesh(model, 14e6);
    ASSERT_GT(mesh.elements.size(), 3u);
    for (const Element& e : mesh.elements)
        EXPECT_NEAR(e.radius, 0.01 - 0.008 * 0.5 * (e.from + e.to) / 10.0, 1e-9);
}

TEST(SegmentDistance, TakesPointsAndParallels)
{
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {10, 0, 0}, {4, 3, 0}, {4, 3, 0}), 3.0, 1e-12);
    EXPECT_NEAR(segmentDistance({4, 3, 0}, {4, 3, 0}, {0, 0, 0}, {10, 0, 0}), 3.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {10, 0, 0}, {12, 0, 0}, {15, 0, 0}), 2.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {10, 0, 0}, {3, 1, 0}, {5, 1, 0}), 1.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {0, 0, 0}, {1, 2, 2}, {1, 2, 2}), 3.0, 1e-12);
}

} // namespace
} // namespace vetchling::em
