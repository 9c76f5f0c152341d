/// Words in graphics: none on another, none struck by a curve, none cut; told by what was painted.
#include "tests/app/app_fixture.h"
#include "tests/app/ink.h"
#include "tests/long_form.h"

#include "app/plots/band_strip.h"
#include "app/view/canvas.h"
#include "app/view/sketch.h"

#include <QAbstractButton>

namespace vetchling::app {
namespace {

class Labels : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        window().fileDesk().openDemo();
        window().resize(1366, 768);
    }
    bool rests()
    {
        return waitedFor([&] { return solver().atRest() && !solver().busyInBackground(); }, 240000);
    }
    QWidget* page() { return window().findChild<QStackedWidget*>(QStringLiteral("stages"))->currentWidget(); }

    void look(Canvas& canvas, const QString& where, const QSizeF& size)
    {
        Ink ink(size);
        {
            QPainter painter(&ink);
            Sketch sketch(painter, window().theme());
            canvas.render(sketch, size);
        }
        m_words += ink.words();
        const QString at = QStringLiteral("%1 %2x%3: ").arg(where).arg(size.width()).arg(size.height());
        for (const auto& [kind, found] :
             {std::pair("on one another", ink.wordsOnWords()), std::pair("struck", ink.wordsStruck()), std::pair("cut", ink.wordsCut())})
            for (const QString& one : found)
                m_faults << at + QLatin1String(kind) + QStringLiteral(": ") + one;
    }
    void lookAtAll(const QString& where)
    {
        for (auto* canvas : window().findChildren<Canvas*>())
            if (canvas->isVisible())
                for (double factor : {1.0, 0.8, 1.4}) {
                    const QString name = where + QLatin1Char(' ') + QLatin1String(canvas->metaObject()->className());
                    look(*canvas, name, QSizeF((QSizeF(canvas->size()) * factor).toSize().expandedTo(canvas->minimumSize())));
                }
    }

    QStringList m_faults;
    int m_words = 0;
};

TEST(Ink, SeesWhatRunsIntoAnother)
{
    Ink ink(QSizeF(200, 100));
    {
        QPainter p(&ink);
        p.setPen(Qt::black);
        p.drawText(QPointF(10, 30), QStringLiteral("over 9"));
        p.drawText(QPointF(30, 30), QStringLiteral("11.3 dB"));
        p.drawText(QPointF(10, 60), QStringLiteral("struck"));
        p.drawLine(QPointF(0, 56), QPointF(100, 56));
        p.drawLine(QPointF(0, 86), QPointF(200, 86));
        p.fillRect(QRectF(0, 70, 90, 30), Qt::white);
        p.drawText(QPointF(10, 90), QStringLiteral("on a ground"));
        p.drawText(QPointF(180, 20), QStringLiteral("leaves the paper"));
    }
    EXPECT_EQ(ink.wordsOnWords(), QStringList{QStringLiteral("over 9 × 11.3 dB")});
    ASSERT_EQ(ink.wordsStruck().size(), 1);
    EXPECT_TRUE(ink.wordsStruck()[0].startsWith(QStringLiteral("struck")));
    ASSERT_EQ(ink.wordsCut().size(), 1);
    EXPECT_TRUE(ink.wordsCut()[0].startsWith(QStringLiteral("leaves")));
}

TEST_F(Labels, StandClearOfOneAnotherAndOfCurves)
{
    using testing::longForm;
    for (const bool isMetric : {true, false}) {
        if ((document().design().operation.system == units::System::Metric) != isMetric)
            QTest::mouseClick(find<QToolButton>("units"), Qt::LeftButton);
        const std::size_t count = document().design().antennas.size();
        for (std::size_t a = 0; a < count; ++a) {
            if (!longForm() && a != (isMetric ? 0u : 4u)) // linked; with coils
                continue;
            chooseAntenna(int(a));
            for (int stage = 0; stage < window().stageCount(); ++stage) {
                window().showStage(stage);
                ASSERT_TRUE(rests());
                std::vector<QAbstractButton*> views;
                for (auto* button : page()->findChildren<QAbstractButton*>())
                    if (button->isVisible() && button->accessibleName().endsWith(QStringLiteral("view")))
                        views.push_back(button);
                const QString where = QStringLiteral("%1 %2 %3").arg(isMetric ? "m" : "ft").arg(a).arg(stage);
                if (views.empty())
                    lookAtAll(where);
                for (auto* view : views) {
                    view->click();
                    QTest::qWait(50);
                    ASSERT_TRUE(rests());
                    lookAtAll(where + QLatin1Char(' ') + view->objectName());
                }
            }
        }
    }
    EXPECT_GT(m_words, 1000);
    EXPECT_TRUE(m_faults.isEmpty()) << m_faults.size() << "\n" << m_faults.join(QLatin1Char('\n')).toStdString();
}

} // namespace
} // namespace vetchling::app
