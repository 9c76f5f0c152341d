#include "app/plots/scene/solids.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace vetchling::app {
namespace {

constexpr double pieceLength = 0.6; // m, of wires and supports

class Solids {
public:
    Solids(Sketch& sketch, const Camera& camera) : m_sketch(sketch), m_camera(camera), m_towardsViewer(cross(camera.right, camera.up)) {}

    void addBuilding(const Building& building)
    {
        const std::size_t corners = building.outline.size();
        if (corners < 3)
            return;
        Vec3 top{0.0, 0.0, building.ridge};
        for (PlanPoint p : building.outline)
            top = top + Vec3{p.x / double(corners), p.y / double(corners), 0.0};
        for (std::size_t i = 0; i < corners; ++i) {
            const PlanPoint a = building.outline[i], b = building.outline[(i + 1) % corners];
            const Vec3 ea{a.x, a.y, building.eaves}, eb{b.x, b.y, building.eaves};
            addFace({{a.x, a.y, 0.0}, {b.x, b.y, 0.0}, eb, ea}, m_sketch.colours().panel);
            addFace({ea, eb, top}, m_sketch.colours().fill);
        }
    }

    void addSupport(const Support& s)
    {
        const double width = s.kind == SupportKind::Tower ? 9.0 : s.kind == SupportKind::Tree ? 6.0 : 4.0;
        addLine({s.at.x, s.at.y, 0.0}, {s.at.x, s.at.y, s.height}, QPen(m_sketch.colours().inkFaint, width, Qt::SolidLine, Qt::FlatCap));
    }

    void addWires(const WireModel& model)
    {
        const QPen pen(m_sketch.colours().leaf, 2.5, Qt::SolidLine, Qt::RoundCap);
        for (const Wire& w : model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                addLine(w.points[i - 1], w.points[i], pen);
    }

    void paint()
    {
        std::stable_sort(m_pieces.begin(), m_pieces.end(), [](const Piece& a, const Piece& b) { return a.depth < b.depth; });
        for (const Piece& piece : m_pieces)
            piece.paint();
    }

private:
    struct Piece {
        double depth; ///< towards the viewer
        std::function<void()> paint;
    };

    double depthOf(Vec3 p) const { return dot(p - m_camera.target, m_towardsViewer); }

    void addFace(const std::vector<Vec3>& corners, const QColor& colour)
    {
        QPolygonF polygon;
        Vec3 middle;
        for (Vec3 p : corners) {
            polygon << m_camera.project(p);
            middle = middle + (1.0 / double(corners.size())) * p;
        }
        m_pieces.push_back({depthOf(middle), [this, polygon, colour] {
                                m_sketch.painter().setPen(QPen(m_sketch.colours().hairline, 1.0));
                                m_sketch.painter().setBrush(colour);
                                m_sketch.painter().drawPolygon(polygon);
                            }});
    }

    void addLine(Vec3 a, Vec3 b, const QPen& pen)
    {
        const int count = std::max(1, int(std::ceil(distance(a, b) / pieceLength)));
        for (int i = 0; i < count; ++i) {
            const Vec3 from = a + (double(i) / count) * (b - a), to = a + (double(i + 1) / count) * (b - a);
            m_pieces.push_back({depthOf(0.5 * (from + to)), [this, from, to, pen] {
                                    m_sketch.painter().setPen(pen);
                                    m_sketch.painter().drawLine(m_camera.project(from), m_camera.project(to));
                                }});
        }
    }

    Sketch& m_sketch;
    const Camera& m_camera;
    Vec3 m_towardsViewer;
    std::vector<Piece> m_pieces;
};

} // namespace

void paintSolids(Sketch& sketch, const Camera& camera, const Site& site, const std::vector<const Support*>& supports,
                 const WireModel& wires)
{
    Solids solids(sketch, camera);
    for (const Building& b : site.buildings)
        solids.addBuilding(b);
    for (const Support* s : supports)
        solids.addSupport(*s);
    solids.addWires(wires);
    solids.paint();
}

} // namespace vetchling::app
