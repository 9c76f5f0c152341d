#include "app/stages/build/build_sheet.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

#include "core/files/writer.h"

#include <QBuffer>
#include <QPageLayout>
#include <QPdfWriter>

#include <algorithm>

namespace vetchling::app {
namespace {

QString length(double metres, units::System system) { return QString::fromStdString(units::formatLength(metres, system)); }

const std::vector<double> columnShares{0.22, 0.10, 0.16, 0.18, 0.16, 0.18};
constexpr double barsTop = 4.0, barsHeading = 24.0, barPitch = 42.0; // px

bool hasEnd(const std::vector<shapes::WireSection>& sections, shapes::WireEnd end)
{
    return std::any_of(sections.begin(), sections.end(), [&](const auto& s) { return s.first == end || s.last == end; });
}

} // namespace

BuildSheet::BuildSheet(ViewContext& context)
    : Canvas(context), m_list(new CutListModel(this)), m_table(new Table(m_list, columnShares, this))
{
    setObjectName(QStringLiteral("buildSheet"));
    setAccessibleName(tr("Build sheet"));
    m_table->setObjectName(QStringLiteral("cutTable"));
    m_table->setAccessibleName(tr("Cut list"));
    const auto again = [this] {
        refreshTable();
        update();
    };
    connect(&context.document, &Document::designChanged, this, again);
    connect(&context.document, &Document::currentChanged, this, again);
    refreshTable();
}

void BuildSheet::refreshTable()
{
    m_list->setRows(rows(), m_context.system());
    m_table->setVisible(!rows().empty());
    m_table->setGeometry(0, int(tableTop()), width(), m_table->fullHeight());
}

double BuildSheet::tableTop() const { return barsTop + barsHeading + barPitch * double(rows().size()) + 10.0; }

void BuildSheet::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    refreshTable();
}

std::vector<shapes::WireSection> BuildSheet::sections() const
{
    const AntennaModel* model = m_context.models.current();
    return model && model->built && !model->fault ? model->built->sections : std::vector<shapes::WireSection>{};
}

std::vector<CutRow> BuildSheet::rows() const
{
    const AntennaModel* model = m_context.models.current();
    return model ? model->cut : std::vector<CutRow>{};
}

void BuildSheet::render(Sketch& sketch, const QSizeF& size)
{
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    if (rows().empty()) {
        const AntennaModel* model = m_context.models.current();
        const QString words = !model         ? tr("No antenna yet: add one with + at the top.")
                              : model->fault ? tr("Nothing to cut: %1.").arg(coreWords(model->fault->message, m_context.system()))
                                             : tr("Nothing to cut.");
        sketch.text({0.5 * size.width(), 60.0}, words, Qt::AlignHCenter | Qt::AlignTop, {sketch.colours().inkSoft, 14});
        return;
    }
    paintBars(sketch, barsTop, size.width());
    double y = onScreen() ? tableTop() + m_table->fullHeight()
                          : paintTable(sketch, *m_list, columnShares, tableTop(), size.width(), size.height());
    y = paintEnds(sketch, y + 26.0, size.width());
    y = paintParts(sketch, y + 8.0, size.width());
    paintCautions(sketch, y + 16.0, size.width());
}

/// One bar a piece, radiating part green, what is added petal.
double BuildSheet::paintBars(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const auto system = m_context.document.design().operation.system;
    const std::vector<CutRow> all = rows();
    double longest = 0.0;
    for (const CutRow& r : all)
        longest = std::max(longest, r.cut);
    sketch.text({0, top}, tr("Wire, to scale"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    double y = top + barsHeading;
    for (const CutRow& r : all) {
        const double scale = (width - 160.0) / longest, radiating = r.radiating * scale, added = (r.cut - r.radiating) * scale;
        sketch.text({0, y + 7}, r.pieces > 1 ? tr("%1 × %2").arg(r.pieces).arg(coreWords(r.name)) : coreWords(r.name),
                    Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12});
        sketch.painter().setPen(Qt::NoPen);
        sketch.painter().setBrush(c.leaf);
        sketch.painter().drawRoundedRect(QRectF(110, y, radiating, 14), 2, 2);
        sketch.painter().setBrush(c.petal);
        sketch.painter().drawRoundedRect(QRectF(110 + radiating + 2, y, std::max(3.0, added - 2), 14), 2, 2);
        sketch.text({112, y + 17}, tr("%1 radiating").arg(length(r.radiating, system)), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
        sketch.text({110 + radiating + added, y + 17},
                    (r.margin > 0.0 ? tr("+ %1 for ends, folds and margin") : tr("+ %1 for ends and folds"))
                        .arg(QString::fromStdString(units::formatSmall(r.cut - r.radiating, system))),
                    Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
        y += barPitch;
    }
    return y;
}

double BuildSheet::paintEnds(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    const auto all = sections();
    const bool coils = hasEnd(all, shapes::WireEnd::Coil);
    const double third = width / 3.0;
    sketch.text({0, top}, tr("At the feedpoint"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    centrePiece(sketch, {std::max(0.33 * third + 20, 88.0), top + 62});
    if (coils) {
        sketch.text({third, top}, tr("At a coil"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
        coilPiece(sketch, {1.4 * third, top + 62});
    }
    if (hasEnd(all, shapes::WireEnd::Insulator)) {
        sketch.text({2 * third, top}, tr("At an end"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
        endPiece(sketch, {std::min(2.32 * third, width - 104.0), top + 62});
    }
    return top + 140.0;
}

/// What to have at hand, counted from the sections.
double BuildSheet::paintParts(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    int insulators = 0, coils = 0, joints = 0;
    for (const shapes::WireSection& s : sections())
        for (shapes::WireEnd end : {s.first, s.last}) {
            insulators += end == shapes::WireEnd::Insulator ? s.pieces : 0;
            coils += end == shapes::WireEnd::Coil ? s.pieces : 0;
            joints += end == shapes::WireEnd::Joint ? s.pieces : 0;
        }
    QStringList parts{hasEnd(sections(), shapes::WireEnd::Transformer) ? tr("transformer in a box 1") : tr("centre piece 1"),
                      tr("common-mode choke 1")};
    if (insulators > 0)
        parts << tr("end insulators %1").arg(insulators);
    if (coils > 0)
        parts << tr("coils %1").arg(coils / 2);
    if (joints > 0)
        parts << tr("soldered joints %1").arg(joints);
    parts << tr("rope") << tr("heat-shrink") << tr("sealing tape");
    sketch.text({0, top}, tr("Parts"), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
    sketch.painter().setFont(sketch.theme().font(13));
    sketch.painter().setPen(c.ink);
    QRectF filled;
    sketch.painter().drawText(QRectF(0, top + 20, width, 60), Qt::TextWordWrap, parts.join(QStringLiteral(" · ")), &filled);
    return filled.bottom() + 4.0;
}

void BuildSheet::centrePiece(Sketch& sketch, QPointF at) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setPen(QPen(c.inkSoft, 1.2));
    p.setBrush(c.fill);
    p.drawRoundedRect(QRectF(at.x() - 32, at.y() - 22, 64, 44), 6, 6);
    p.setBrush(c.paper);
    p.drawEllipse(at + QPointF(0, -12), 4, 4);
    for (double side : {-1.0, 1.0}) {
        for (double dy : {-2.0, 10.0})
            p.drawEllipse(at + QPointF(side * 24, dy), 2.5, 2.5);
        QPainterPath wire(at + QPointF(side * 74, 30));
        wire.lineTo(at + QPointF(side * 24, 10));
        wire.cubicTo(at + QPointF(side * 10, 4), at + QPointF(side * 14, -8), at + QPointF(side * 24, -2));
        wire.cubicTo(at + QPointF(side * 30, 4), at + QPointF(side * 12, 10), at + QPointF(side * 8, 14));
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.leaf, 2.2));
        p.drawPath(wire);
        p.setPen(QPen(c.inkSoft, 1.2));
        p.setBrush(c.paper);
    }
    p.setPen(QPen(c.ink, 5.0, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(at + QPointF(0, 20), at + QPointF(0, 48));
    sketch.text(at + QPointF(10, 40), tr("choke, then coax"), Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 12});
    sketch.text(at + QPointF(-84, 62), tr("wire through two holes: no pull on the joint"), Qt::AlignLeft | Qt::AlignVCenter,
                {c.inkSoft, 12});
}

void BuildSheet::endPiece(Sketch& sketch, QPointF at) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.leaf, 2.4));
    p.drawLine(at + QPointF(-100, 4), at + QPointF(18, 4));
    p.setPen(QPen(c.petal, 2.4));
    QPainterPath fold(at + QPointF(18, 4));
    fold.cubicTo(at + QPointF(32, 4), at + QPointF(32, -10), at + QPointF(18, -10));
    fold.lineTo(at + QPointF(-56, -10));
    p.drawPath(fold);
    p.setPen(QPen(c.inkSoft, 1.2));
    p.setBrush(c.fill);
    p.drawRoundedRect(QRectF(at.x() + 26, at.y() - 10, 30, 16), 7, 7);
    QPen rope(c.inkSoft, 1.6);
    rope.setDashPattern({4, 3});
    p.setPen(rope);
    p.drawLine(at + QPointF(56, -2), at + QPointF(100, -2));
    const double fold_m = m_context.document.hasAntenna() ? m_context.document.antenna().allowances.fold : 0.3;
    sketch.text(at + QPointF(-100, 20),
                tr("fold %1 back along itself and tie")
                    .arg(QString::fromStdString(units::formatSmall(fold_m, m_context.document.design().operation.system))),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
}

void BuildSheet::coilPiece(Sketch& sketch, QPointF at) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setPen(QPen(c.leaf, 2.4));
    p.drawLine(at + QPointF(-90, 0), at + QPointF(-26, 0));
    p.drawLine(at + QPointF(26, 0), at + QPointF(90, 0));
    p.save();
    p.translate(at);
    p.scale(2.0, 2.0);
    sketch.coil({0, 0}, 0.0);
    p.restore();
    sketch.text(at + QPointF(0, 20), tr("the former carries the pull, not the turns"), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
}

void BuildSheet::paintCautions(Sketch& sketch, double top, double width) const
{
    const Colours& c = sketch.colours();
    sketch.line({0, top}, {width, top}, c.hairline);
    sketch.painter().setFont(sketch.theme().font(12));
    sketch.painter().setPen(c.brick);
    sketch.painter().drawText(QRectF(0, top + 8, width, 60), Qt::TextWordWrap,
                              tr("A wire under tension can whip when it parts, and a low one can catch a neck: hang it high or mark it. "
                                 "Wire ends carry high voltage: out of reach, no bare metal "
                                 "within a metre. Eye protection for drilling, air for soldering. Follow local codes."));
}

void paintSheet(QPainter& painter, BuildSheet& sheet, const SheetHead& head)
{
    Theme paper;
    paper.setMode(Theme::Mode::Paper);
    constexpr double sheetWidth = 580.0, line = 18.0;
    const double scale = painter.viewport().width() / sheetWidth;
    painter.scale(scale, scale);
    double y = 0.0;
    {
        Sketch sketch(painter, paper);
        sketch.text({0, y}, head.title, Qt::AlignLeft | Qt::AlignTop, {paper.colours().ink, 20, true});
        sketch.text({0, y += 28}, head.sentence, Qt::AlignLeft | Qt::AlignTop, {paper.colours().inkSoft, 13});
        y += 24;
        for (const QString& fact : head.facts) {
            sketch.text({0, y}, fact, Qt::AlignLeft | Qt::AlignTop, {paper.colours().ink, 13});
            y += line;
        }
        y += 10;
        sketch.line({0, y}, {sheetWidth, y}, paper.colours().hairline);
    }
    painter.translate(0, y + 12.0);
    Sketch body(painter, paper);
    sheet.render(body, {sheetWidth, painter.viewport().height() / scale - y - 12.0});
}

bool writeBuildPdf(BuildSheet& sheet, const SheetHead& head, const QString& path)
{
    QByteArray content;
    QBuffer buffer(&content);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageMargins(QMarginsF(16, 16, 16, 16), QPageLayout::Millimeter);
    writer.setTitle(head.title);
    writer.setCreator(QStringLiteral("Vetchling"));
    QPainter painter;
    if (!painter.begin(&writer))
        return false;
    paintSheet(painter, sheet, head);
    return painter.end() && files::writeWhole(path.toStdString(), content.toStdString()).empty();
}

} // namespace vetchling::app
