/// What can be checked of the look without eyes: contrast, shipped fonts and icons, labels that keep apart, undo merging.
#include "tests/app/app_fixture.h"

#include "app/view/sketch.h"
#include "app/widgets/bars.h"
#include "app/widgets/value_edit.h"

#include <QFontDatabase>

namespace vetchling::app {
namespace {

/// Relative luminance and contrast ratio (WCAG 2.1, definitions).
double luminance(const QColor& colour)
{
    const auto linear = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
}

double contrast(const QColor& a, const QColor& b)
{
    const double la = luminance(a), lb = luminance(b);
    return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

TEST(Theme, TextHasEnoughContrastInBothThemes)
{
    Theme theme;
    for (Theme::Mode mode : {Theme::Mode::Day, Theme::Mode::Night}) {
        theme.setMode(mode);
        const Colours& c = theme.colours();
        for (const QColor& ground : {c.paper, c.panel, c.card})
            for (const QColor& text : {c.ink, c.inkSoft, c.inkFaint, c.leaf, c.sky, c.brick})
                EXPECT_GE(contrast(text, ground), 4.5) << text.name().toStdString() << " on " << ground.name().toStdString();
        EXPECT_GE(contrast(c.ink, c.leafPale), 4.5);
        EXPECT_GE(contrast(c.ink, c.petalPale), 4.5);
        EXPECT_GE(contrast(c.paper, c.leaf), 4.5); // the strong button
    }
}

// 2026-11: night fell while a message was on show: pale words on the day's ground.
TEST_F(WindowTest, AMessageIsReadableWhenNightFalls)
{
    document().edit(QStringLiteral("less"), {}, [](Design& d) { d.operation.bands.clear(); });
    window().exports().picture(file("nowhere/a.png"));
    auto* message = find<QLabel>("message");
    ASSERT_TRUE(message->isVisible());
    for (int i = 0; i < 2; ++i) {
        const QColor ground = message->grab().toImage().pixelColor(message->width() / 2, 4);
        EXPECT_GE(contrast(window().theme().colours().ink, ground), 4.5) << ground.name().toStdString();
        window().toggleTheme();
    }
}

TEST(Theme, FontsAndIconsAreShippedInside)
{
    Theme theme;
    theme.apply(*qApp);
    EXPECT_TRUE(QFontDatabase::families().contains(QStringLiteral("Lato")));
    for (const char* name : {"undo", "redo", "pin", "sun", "moon", "menu", "plus"})
        EXPECT_FALSE(theme.icon(QLatin1String(name)).isNull()) << name;
    EXPECT_TRUE(theme.icon(QStringLiteral("no-such-icon")).isNull());
    EXPECT_TRUE(QFile::exists(QStringLiteral(":/icons/vetchling.svg")));
    EXPECT_TRUE(QFile::exists(QStringLiteral(":/fonts/OFL.txt")));
}

TEST(Sketch, LabelsKeepApart)
{
    Theme theme;
    QImage image(300, 200, QImage::Format_ARGB32);
    QPainter painter(&image);
    Sketch sketch(painter, theme);
    std::vector<QRectF> placed;
    for (int i = 0; i < 5; ++i)
        placed.push_back(sketch.label({150, 100}, QStringLiteral("label %1").arg(i), Qt::AlignCenter, {Qt::black, 12}));
    for (std::size_t i = 0; i < placed.size(); ++i) {
        EXPECT_FALSE(placed[i].isNull());
        for (std::size_t j = i + 1; j < placed.size(); ++j)
            EXPECT_FALSE(placed[i].intersects(placed[j])) << i << j;
    }
    sketch.reserve({0, 0, 300, 200});
    EXPECT_TRUE(sketch.label({150, 100}, QStringLiteral("no room"), Qt::AlignCenter, {Qt::black, 12}).isNull());
}

TEST(Document, StepsWithOneKeyAreOneStepUntilTheDragEnds)
{
    Document document;
    Design design;
    design.site.name = "a";
    document.setDesign(design, {});
    const auto rename = [&](const char* key, const char* name) {
        document.edit("rename", QLatin1String(key), [&](Design& d) { d.site.name = name; });
    };
    rename("drag", "b");
    rename("drag", "c");
    EXPECT_EQ(document.undoStack().count(), 1);
    document.endDrag();
    rename("drag", "d");
    EXPECT_EQ(document.undoStack().count(), 2);
    rename("", "e");
    rename("", "f");
    EXPECT_EQ(document.undoStack().count(), 4);
    rename("", "f"); // nothing changes: no step
    EXPECT_EQ(document.undoStack().count(), 4);
    for (const char* name : {"e", "d", "c", "a"}) {
        document.undoStack().undo();
        EXPECT_EQ(document.design().site.name, name);
    }
    EXPECT_FALSE(document.modified());
}

TEST(Document, KeepsCurrentAndBandInRange)
{
    Document document;
    EXPECT_FALSE(document.hasAntenna());
    document.setCurrent("nobody");
    document.selectBand("none");
    EXPECT_TRUE(document.current().empty());
    EXPECT_TRUE(document.selectedBand().empty());
    document.setParameter("leg_m", 3.0, {}); // nothing there to change
    document.removeCurrentAntenna();
    EXPECT_FALSE(document.undoStack().canUndo());
}

TEST(ValueEdit, EscapeBringsTheValueBack)
{
    ValueEdit edit(units::Quantity::Length);
    edit.setValue(10.0, units::System::Metric);
    QSignalSpy edited(&edit, &ValueEdit::edited);
    edit.selectAll();
    QTest::keyClicks(&edit, QStringLiteral("nonsense"));
    QTest::keyClick(&edit, Qt::Key_Escape);
    EXPECT_EQ(edit.text(), QStringLiteral("10.00 m"));
    EXPECT_EQ(edited.count(), 0);
}

TEST(ValueEdit, SaysWhatItMeansAndWhatWasTyped)
{
    ValueEdit edit(units::Quantity::Length);
    edit.setHelp(QStringLiteral("0: no bend"));
    edit.setValue(10.06, units::System::Metric, QStringLiteral("33ft"));
    EXPECT_EQ(edit.toolTip(), QStringLiteral("0: no bend; typed as 33ft"));
    edit.setValue(10.06, units::System::Metric);
    EXPECT_EQ(edit.toolTip(), QStringLiteral("0: no bend"));
}

// Kept points are the line's own, its ends among them, and no point is left out that lies off the line drawn.
TEST(Simplified, KeepsTheLineWithinAQuarterOfAPixel)
{
    QPolygonF line;
    for (int i = 0; i <= 1000; ++i) {
        const double x = 0.7 * i;
        line << QPointF(x, i < 400 ? 80.0 : 80.0 - 60.0 * std::exp(-std::pow((x - 400.0) / 25.0, 2.0)));
    }
    const QPolygonF drawn = simplified(line);
    EXPECT_LT(drawn.size(), 100);
    EXPECT_EQ(drawn.first(), line.first());
    EXPECT_EQ(drawn.last(), line.last());
    qsizetype next = 1;
    for (const QPointF& p : line) {
        while (drawn[next].x() < p.x())
            ++next;
        const QPointF a = drawn[next - 1], b = drawn[next];
        EXPECT_NEAR(a.y() + (b.y() - a.y()) * (p.x() - a.x()) / (b.x() - a.x()), p.y(), 0.26);
    }
    EXPECT_EQ(simplified({{0, 0}}).size(), 1);
    EXPECT_TRUE(simplified({}).isEmpty());
}

TEST(Theme, CutsWordsShortOnlyWhereTheyAreWide)
{
    const Theme theme;
    const QString words = QStringLiteral("Marsh vertical 30");
    const double width = theme.typeset(words).size.width();
    EXPECT_EQ(theme.elided(words, width + 1.0), words);
    const QString cut = theme.elided(words, 0.6 * width);
    EXPECT_LE(theme.typeset(cut).size.width(), 0.6 * width);
    EXPECT_TRUE(words.startsWith(cut.chopped(1)));
}

TEST(Bars, AreReadOutInWords)
{
    Theme theme;
    CompareBars bars(theme);
    bars.setRows({{QStringLiteral("Rule"), QStringLiteral("10.07 m"), 10.07, Qt::green},
                  {QStringLiteral("Solved"), QStringLiteral("9.87 m"), 9.87, Qt::green}});
    EXPECT_EQ(bars.accessibleName(), QStringLiteral("Rule 10.07 m, Solved 9.87 m"));
    ShareBar share(theme);
    share.setShares({{QStringLiteral("sky"), 0.7, Qt::blue}, {QStringLiteral("soil"), 0.3, Qt::gray}}, 100.0);
    EXPECT_EQ(share.accessibleName(), QStringLiteral("70 W sky, 30 W soil"));
    share.resize(200, 42);
    const QImage bar = share.grab().toImage();
    EXPECT_EQ(bar.pixelColor(20, 8), QColor(Qt::blue));
    EXPECT_EQ(bar.pixelColor(180, 8), QColor(Qt::gray)) << "from 70 % of the width on";
}

} // namespace
} // namespace vetchling::app
