#include "app/document/variants_desk.h"
#include "app/widgets/value_edit.h"
#include "core/files/data.h"
#include "tests/app/app_fixture.h"

#include <QAction>
#include <QComboBox>
#include <QLabel>

namespace vetchling::app {
namespace {

class VariantSoilTest : public WindowTest {
protected:
    void choose(int row)
    {
        auto* soil = find<QComboBox>("variantSoil");
        soil->setCurrentIndex(row);
        emit soil->activated(row);
    }
    std::vector<Soil> m_soils = files::readSoils(VETCHLING_SOURCE_DATA "/soils.json").value();
    const Soil& under() { return soilUnder(document().design(), document().antenna()); }
};

TEST_F(VariantSoilTest, IsChosenBesideTheVariantAndLeavesTheSiteAsItIs)
{
    show("shape");
    window().findChild<QAction*>(QStringLiteral("actionVariant"))->trigger();
    click("viewVariants");
    const Soil site = document().design().site.soil;
    choose(2 + 1);
    EXPECT_EQ(under(), m_soils[1]);
    EXPECT_EQ(document().design().site.soil, site);
    ASSERT_TRUE(settle());
    EXPECT_EQ(solver().curve()->question.subject.ground, m_soils[1].ground());
    window().findChild<QAction*>(QStringLiteral("actionNextVariant"))->trigger();
    EXPECT_EQ(under(), site) << "as drawn";
    document().undoStack().undo();
    EXPECT_EQ(under(), site);
    EXPECT_FALSE(document().variant().empty());
}

TEST_F(VariantSoilTest, TypedFiguresMakeItItsOwn)
{
    show("shape");
    click("viewVariants");
    type("variantConductivity", QStringLiteral("0,25"));
    EXPECT_DOUBLE_EQ(under().conductivity, 0.25);
    EXPECT_TRUE(under().id.empty());
    EXPECT_EQ(find<QComboBox>("variantSoil")->currentIndex(), 1);
    EXPECT_NE(document().design().site.soil.conductivity, 0.25);
    show("site");
    EXPECT_NE(find<ValueEdit>("conductivity")->text(), QStringLiteral("0,25"));
    show("shape");
    choose(0);
    EXPECT_EQ(under(), document().design().site.soil);
}

} // namespace
} // namespace vetchling::app
