#pragma once
/// Drawings of how an antenna is put together, made from the design: the whole with dimensions, and its details. For screen and sheet.

#include "app/view/sketch.h"
#include "core/design/design.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/templates.h"

#include <QCoreApplication>

namespace vetchling::app {

/// What a detail needs to know.
struct DetailFacts {
    const Antenna& antenna;
    const shapes::BuiltAntenna& built;
    const BuildFacts& facts;
    units::System system;
};

enum class DetailKind { Centre, Link, End, Coil, RadialPlate, LoopCorner };

/// What is told with its height: the drawing's handles, and the other of two links, coils or ends that a handle stands for.
std::vector<std::pair<std::string, Vec3>> heightsOf(const shapes::BuiltAntenna& built);

/// Those that an antenna has, in the order of the work.
std::vector<DetailKind> detailsOf(const shapes::BuiltAntenna& built, const BuildFacts& facts);

class BuildDrawings {
    Q_DECLARE_TR_FUNCTIONS(BuildDrawings)
public:
    BuildDrawings(Sketch& sketch, const DetailFacts& facts) : m_sketch(sketch), m_facts(facts) {}

    static QString title(DetailKind kind);
    /// A detail with its words below, within an area of 200 x 132 or more.
    void detail(DetailKind kind, const QRectF& area);
    /// Seen from the side, ground, heights and ropes with it; loops that lie flat from above.
    void whole(const QRectF& area);

private:
    void centre(QPointF at);
    void link(QPointF at);
    void end(QPointF at);
    void coil(QPointF at);
    void radialPlate(QPointF at);
    void loopCorner(QPointF at);
    void wire(const std::vector<QPointF>& points, bool added = false);
    void plate(const QRectF& area);
    void hole(QPointF at, double radius);
    [[nodiscard]] QString words(DetailKind kind) const;
    [[nodiscard]] QString small(double metres) const;

    Sketch& m_sketch;
    const DetailFacts& m_facts;
};

/// Plates to be drilled, on as many pages as it takes, at 1:1 whatever the page's resolution. Returns the pages.
int paintPlates(QPainter& painter, const Theme& theme, const std::vector<Plate>& plates, const std::function<void()>& newPage);

} // namespace vetchling::app
