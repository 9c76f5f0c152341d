/// The document with variants, without a window: what is looked at, what is stored, and what undo brings back.
#include "app/document/document.h"
#include "core/files/design_file.h"

#include <QTemporaryDir>

#include <gtest/gtest.h>

namespace vetchling::app {
namespace {

class DocumentVariants : public ::testing::Test {
protected:
    void SetUp() override
    {
        Design d;
        d.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {}}, {{"20 m", 14e6, 14.35e6}, Wish::Nice, "twenty", {}, {}}};
        for (double frequency : {7.1e6, 14.1e6}) {
            d.antennas.push_back(newAntenna(*shapes::findFamily("dipole"), frequency));
            d.antennas.back().name = frequency < 10e6 ? "low" : "high";
        }
        nameThings(d);
        m_document.setDesign(std::move(d), {});
    }
    double leg() { return m_document.antenna().shape.parameters.at("leg_m"); }
    double storedLeg() { return findAntenna(m_document.stored(), m_document.current())->shape.parameters.at("leg_m"); }
    void undo() { m_document.undoStack().undo(); }
    void redo() { m_document.undoStack().redo(); }

    Document m_document;
};

TEST_F(DocumentVariants, EachAntennaKeepsTheOneThatIsLookedAt)
{
    m_document.addVariant(QStringLiteral("short"));
    const Id first = m_document.variant();
    m_document.setParameter("leg_m", 8.0, {});
    m_document.stepCurrent(1);
    EXPECT_TRUE(m_document.variant().empty());
    m_document.addVariant(QStringLiteral("short"));
    EXPECT_NE(m_document.variant(), first);
    m_document.stepCurrent(-1);
    EXPECT_EQ(m_document.variant(), first);
    EXPECT_EQ(leg(), 8.0);
    EXPECT_EQ(m_document.shownName(), QStringLiteral("low, short"));
}

TEST_F(DocumentVariants, StepsGoRoundThroughTheOneAsDrawn)
{
    m_document.addVariant(QStringLiteral("a"));
    m_document.addVariant(QStringLiteral("b"));
    const Id b = m_document.variant();
    m_document.stepVariant(1);
    EXPECT_TRUE(m_document.variant().empty());
    m_document.stepVariant(-1);
    EXPECT_EQ(m_document.variant(), b);
    m_document.stepVariant(-2);
    EXPECT_TRUE(m_document.variant().empty());
}

TEST_F(DocumentVariants, UndoShowsWhatItBringsBack)
{
    const double drawn = leg();
    m_document.addVariant(QStringLiteral("short"));
    m_document.setParameter("leg_m", 8.0, QStringLiteral("8 m"));
    m_document.setVariant({});
    EXPECT_EQ(leg(), drawn);
    undo();
    EXPECT_FALSE(m_document.variant().empty());
    EXPECT_EQ(leg(), drawn);
    redo();
    EXPECT_EQ(leg(), 8.0);
    EXPECT_EQ(storedLeg(), drawn);
    undo();
    undo();
    EXPECT_TRUE(m_document.antenna().variants.empty());
    EXPECT_TRUE(m_document.variant().empty());
    redo();
    EXPECT_EQ(m_document.antenna().variants.size(), 1u);
}

TEST_F(DocumentVariants, ADragOfOneIsOneStep)
{
    m_document.addVariant(QStringLiteral("short"));
    const int before = m_document.undoStack().index();
    for (double value : {9.0, 8.9, 8.8, 8.7})
        m_document.setParameter("leg_m", value, {}, true);
    EXPECT_TRUE(m_document.dragging());
    m_document.endDrag();
    EXPECT_EQ(m_document.undoStack().index(), before + 1);
    EXPECT_EQ(leg(), 8.7);
}

TEST_F(DocumentVariants, WhatIsNoShapeBelongsToTheAntenna)
{
    m_document.addVariant(QStringLiteral("short"));
    m_document.editAntenna(QStringLiteral("note"), {}, [](Antenna& a) { a.notes = "of all of them"; });
    m_document.setVariant({});
    EXPECT_EQ(m_document.antenna().notes, "of all of them");
    EXPECT_TRUE(m_document.antenna().variants.front().values.empty());
}

TEST_F(DocumentVariants, TheDesignFrequencyOfOneSelectsItsBand)
{
    m_document.addVariant(QStringLiteral("for 20 m"));
    m_document.editAntenna(QStringLiteral("cut for 20 m"), {}, [](Antenna& a) { a.shape.designFrequency = 14.1e6; });
    EXPECT_EQ(m_document.selectedBand(), "twenty");
    m_document.setVariant({});
    EXPECT_EQ(m_document.selectedBand(), "forty");
    EXPECT_EQ(m_document.antenna().shape.designFrequency, 7.1e6);
}

TEST_F(DocumentVariants, AnAntennaGoesWithThemAndComesBack)
{
    m_document.addVariant(QStringLiteral("short"));
    m_document.setParameter("leg_m", 8.0, {});
    m_document.removeCurrentAntenna();
    EXPECT_EQ(m_document.antenna().name, "high");
    undo();
    EXPECT_EQ(m_document.antenna().name, "low");
    EXPECT_EQ(m_document.antenna().variants.size(), 1u);
    EXPECT_EQ(leg(), 8.0) << "as it was looked at";
}

TEST_F(DocumentVariants, NamesAreFreeNotesAreKeptNonsenseChangesNothing)
{
    m_document.addVariant(QStringLiteral("short"));
    const Id first = m_document.variant();
    m_document.addVariant(QStringLiteral("short"));
    EXPECT_EQ(m_document.antenna().variants[1].name, "short 2");
    m_document.renameVariant(m_document.variant(), QStringLiteral("  short  "));
    EXPECT_EQ(m_document.antenna().variants[1].name, "short 2");
    const int steps = m_document.undoStack().index();
    m_document.renameVariant(first, QStringLiteral("   "));
    m_document.renameVariant("nobody", QStringLiteral("x"));
    m_document.removeVariant("nobody");
    m_document.setVariant("nobody");
    EXPECT_EQ(m_document.undoStack().index(), steps);
    m_document.noteVariant(first, QStringLiteral("if the tree bears it"));
    EXPECT_EQ(m_document.antenna().variants[0].note, "if the tree bears it");
    m_document.removeVariant(first);
    EXPECT_EQ(m_document.antenna().variants.size(), 1u);
    EXPECT_FALSE(m_document.variant().empty()) << "another one goes on being looked at";
}

TEST_F(DocumentVariants, AnotherDesignIsLookedAtAsDrawn)
{
    m_document.addVariant(QStringLiteral("short"));
    m_document.setParameter("leg_m", 8.0, {});
    QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("a.vetchling"));
    ASSERT_TRUE(m_document.save(path).empty());
    const auto read = files::readDesign(path.toStdString());
    ASSERT_TRUE(read.ok());
    EXPECT_EQ(*read, m_document.stored());
    ASSERT_TRUE(m_document.open(path).empty());
    EXPECT_TRUE(m_document.variant().empty());
    EXPECT_FALSE(m_document.modified());
    m_document.stepVariant(1);
    EXPECT_FALSE(m_document.modified()) << "looking is no change";
    EXPECT_EQ(leg(), 8.0);
}

TEST_F(DocumentVariants, OneBecomesTheAntennaInOneStep)
{
    const double drawn = leg();
    m_document.addVariant(QStringLiteral("short"));
    m_document.setParameter("leg_m", 8.0, {});
    m_document.makeVariantTheAntenna(QStringLiteral("before"));
    EXPECT_EQ(storedLeg(), 8.0);
    EXPECT_TRUE(m_document.variant().empty());
    m_document.stepVariant(1);
    EXPECT_EQ(leg(), drawn);
    undo();
    EXPECT_EQ(storedLeg(), drawn);
    EXPECT_EQ(leg(), 8.0);
    m_document.setVariant({});
    const int steps = m_document.undoStack().index();
    m_document.makeVariantTheAntenna(QStringLiteral("before")); // none is chosen
    EXPECT_EQ(m_document.undoStack().index(), steps);
}

} // namespace
} // namespace vetchling::app
