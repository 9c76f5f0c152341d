/// A stranger's first hour: typing, slips, undo, and what is seen.
#include "tests/app/first_hour.h"

namespace vetchling::app {
namespace {

// ---- type

TEST_F(FirstHour, InFeetABareNumberIsInWhatIsShown)
{
    QTest::mouseClick(find<QToolButton>("units"), Qt::LeftButton);
    type("wireDiameter", QStringLiteral("0.064"));
    EXPECT_NEAR(document().antenna().shape.wire.diameter, 0.064 * 0.0254, 1e-9);
    type("wireDiameter", QStringLiteral("14"));
    EXPECT_NEAR(document().antenna().shape.wire.diameter, 0.064 * 0.0254, 1e-9) << "14 inches would be a pipe";
    EXPECT_TRUE(find<QLabel>("wireDiameterComplaint")->text().contains(QStringLiteral("#14")));
    type("wireDiameter", QStringLiteral("#14"));
    EXPECT_NEAR(document().antenna().shape.wire.diameter, units::gaugeDiameter(14), 1e-9);
    type("leg_m", QStringLiteral("=2*16"));
    EXPECT_NEAR(parameter("leg_m"), 32 * 0.3048, 1e-9);
    type("leg_m", QStringLiteral("33"));
    EXPECT_EQ(document().antenna().typed.at("leg_m"), "33 ft");
    QTest::mouseClick(find<QToolButton>("units"), Qt::LeftButton); // it still means the same
    auto* edit = find<ValueEdit>("leg_m");
    find<ValueEdit>("apex_height_m")->setFocus();
    EXPECT_EQ(edit->text(), QStringLiteral("10.06 m"));
    edit->setFocus();
    EXPECT_EQ(edit->text(), QStringLiteral("33 ft"));
    QTest::keyClicks(edit, QStringLiteral("33 ft "));
    QTest::keyClick(edit, Qt::Key_Return);
    EXPECT_NEAR(parameter("leg_m"), 33 * 0.3048, 1e-9);
}

TEST_F(FirstHour, ABandsNameIsTakenWhereAFrequencyIsAsked)
{
    type("designFrequency", QStringLiteral("17 m"));
    EXPECT_NEAR(document().antenna().shape.designFrequency, 18.118e6, 1e3);
    EXPECT_EQ(find<ValueEdit>("designFrequency")->text(), QStringLiteral("18.118 MHz"));
}

// 2026-11: Ctrl+Z was dead while a field had the focus.
TEST_F(FirstHour, UndoTakesBackTypingFirstThenTheDocument)
{
    auto* edit = find<ValueEdit>("apex_height_m");
    const double before = parameter("apex_height_m");
    type("apex_height_m", QStringLiteral("11"));
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QStringLiteral("9"));
    QTest::keyClick(edit, Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(parameter("apex_height_m"), 11.0) << "only the typing went";
    EXPECT_FALSE(edit->pending());
    QTest::keyClick(edit, Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(parameter("apex_height_m"), before);
    QTest::keyClick(edit, Qt::Key_U, Qt::ControlModifier);
    EXPECT_EQ(document().design().operation.system, units::System::Imperial) << "the window's keys work in a field";
}

TEST_F(FirstHour, EachThingTypedIsOneStep)
{
    show("site");
    const double permittivity = document().design().site.soil.relativePermittivity;
    type("permittivity", QStringLiteral("12"));
    type("permittivity", QStringLiteral("14"));
    type("conductivity", QStringLiteral("0.01"));
    document().undoStack().undo();
    EXPECT_EQ(document().design().site.soil.relativePermittivity, 14.0);
    document().undoStack().undo();
    EXPECT_EQ(document().design().site.soil.relativePermittivity, 12.0);
    document().undoStack().undo();
    EXPECT_EQ(document().design().site.soil.relativePermittivity, permittivity);
    show("shape");
    for (const char* name : {"apex_height_m", "end_height_m"}) { // steps of two values are two
        find<ValueEdit>(name)->setFocus();
        QTest::keyClick(find<ValueEdit>(name), Qt::Key_Up);
        QTest::keyClick(find<ValueEdit>(name), Qt::Key_Up);
    }
    const double ends = parameter("end_height_m");
    document().undoStack().undo();
    EXPECT_NEAR(parameter("end_height_m"), ends - 0.1, 1e-9);
    EXPECT_NEAR(parameter("apex_height_m"), 13.2 + 0.1, 1e-9);
}

// 2026-11: saving left what was still being typed behind, and switching gave it to another antenna.
TEST_F(FirstHour, WhatIsTypedIsTakenBeforeItIsUsed)
{
    auto* edit = find<ValueEdit>("apex_height_m");
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QStringLiteral("11.5"));
    ASSERT_TRUE(window().fileDesk().saveTo(file("nothing.vetchling"))); // a path is given: this is only the writing
    window().fileDesk().save();
    Document other;
    ASSERT_TRUE(other.open(file("nothing.vetchling")).empty());
    EXPECT_EQ(other.design().antennas[0].shape.parameters.at("apex_height_m"), 11.5);

    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QStringLiteral("12.5"));
    const Id first = document().current();
    chooseAntenna(4);
    EXPECT_EQ(findAntenna(document().design(), first)->shape.parameters.at("apex_height_m"), 12.5);
    EXPECT_NE(parameter("apex_height_m"), 12.5);
}

TEST_F(FirstHour, ARejectedValueStopsTheSaving)
{
    const QString path = file("stopped.vetchling");
    ASSERT_TRUE(window().fileDesk().saveTo(path));
    auto* edit = find<ValueEdit>("apex_height_m");
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QStringLiteral("banana"));
    EXPECT_FALSE(window().fileDesk().save());
    EXPECT_TRUE(said().contains(QStringLiteral("banana"))) << said().toStdString();
    chooseAntenna(1); // does not need the value: it goes, and that is said
    EXPECT_TRUE(said().contains(QStringLiteral("not taken"))) << said().toStdString();
    chooseAntenna(0);
    EXPECT_FALSE(find<ValueEdit>("apex_height_m")->pending());
    EXPECT_TRUE(find<QLabel>("apex_height_mComplaint")->isHidden());
}

TEST_F(FirstHour, AComplaintGoesWithItsValue)
{
    type("apex_height_m", QStringLiteral("banana"));
    document().setParameter("apex_height_m", 12.0, {}); // by a drag, or an undo
    QTest::qWait(60);
    find<ValueEdit>("end_height_m")->setFocus();
    QTest::qWait(60);
    document().setParameter("apex_height_m", 12.5, {});
    QTest::qWait(60);
    EXPECT_EQ(find<ValueEdit>("apex_height_m")->text(), QStringLiteral("12.50 m"));
    EXPECT_TRUE(find<QLabel>("apex_height_mComplaint")->isHidden());
}

TEST_F(FirstHour, TheWheelPassesOverChoices)
{
    show("bands");
    const auto wishes = document().design().operation.bands;
    for (Choice* choice : window().findChildren<Choice*>()) {
        const int before = choice->currentIndex();
        QWheelEvent wheel(QPointF(5, 5), choice->mapToGlobal(QPointF(5, 5)), {}, {0, -120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                          false);
        QApplication::sendEvent(choice, &wheel);
        EXPECT_EQ(choice->currentIndex(), before);
    }
    EXPECT_TRUE(document().design().operation.bands == wishes);
    EXPECT_EQ(window().findChildren<QComboBox*>().size(), window().findChildren<Choice*>().size());
}

TEST_F(FirstHour, TuningKeepsFocusAndScroll)
{
    type("leg_m", QStringLiteral("9.8"));
    ASSERT_TRUE(settle());
    auto* button = find<QPushButton>("tuneButton");
    auto* area = qobject_cast<QScrollArea*>(window().stage(QStringLiteral("shape"))->ledger()->parentWidget()->parentWidget());
    ASSERT_TRUE(area);
    button->setFocus();
    const int scroll = area->verticalScrollBar()->value();
    QTest::keyClick(button, Qt::Key_Space);
    ASSERT_TRUE(settle());
    QTest::qWait(100);
    EXPECT_EQ(QApplication::focusWidget(), button);
    EXPECT_EQ(area->verticalScrollBar()->value(), scroll);
    EXPECT_TRUE(button->text().startsWith(QStringLiteral("Tuned"))) << button->text().toStdString();
}

/// Places of what the Tab key reaches inside a widget, in its order, starting from a window.
std::vector<QPoint> tabPlaces(QWidget& window, QWidget& inside)
{
    std::vector<QPoint> places;
    QWidget* w = &window;
    do {
        w = w->nextInFocusChain();
        if (inside.isAncestorOf(w) && w->isVisible() && w->isEnabled() && (w->focusPolicy() & Qt::TabFocus))
            places.push_back(w->mapTo(&inside, QPoint(0, 0)));
    } while (w != &window);
    return places;
}

void expectReadingOrder(const std::vector<QPoint>& places, const std::string& where)
{
    constexpr int oneRow = 12; // px
    ASSERT_FALSE(places.empty()) << where;
    for (std::size_t i = 1; i < places.size(); ++i) {
        const QPoint a = places[i - 1], b = places[i];
        EXPECT_TRUE(std::abs(b.y() - a.y()) < oneRow ? b.x() > a.x() : b.y() > a.y())
            << where << " " << i << " at " << b.y() << " after " << a.y();
    }
}

TEST_F(FirstHour, TabFollowsTheVisibleOrderInTheNewSite)
{
    whenOpen("newSiteDialog", [](QWidget& dialog) {
        QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddSupport")), Qt::LeftButton);
        EXPECT_EQ(dialog.focusWidget(), dialog.findChild<QWidget*>(QStringLiteral("siteHeight2"))) << "what comes next is typed";
        dialog.findChild<QComboBox*>(QStringLiteral("sitePlanOfBands"))->setCurrentIndex(1); // its buttons are made anew
        QTest::qWait(50);
        expectReadingOrder(tabPlaces(dialog, dialog), "new site");
        static_cast<QDialog&>(dialog).reject();
    });
    action("actionNew");
}

TEST_F(FirstHour, ABandIsAMustThenNiceAndEnterTakesAFieldOnly)
{
    whenOpen("newSiteDialog", [](QWidget& dialog) {
        const auto click = [&](const char* name, int times) {
            for (int i = 0; i < times; ++i)
                QTest::mouseClick(dialog.findChild<QToolButton*>(QLatin1String(name)), Qt::LeftButton);
        };
        click("siteBand 20 m", 1);
        click("siteBand 40 m", 2);
        click("siteBand 80 m", 3);
        EXPECT_EQ(dialog.findChild<QToolButton*>(QStringLiteral("siteBand 40 m"))->text(), QStringLiteral("40 m nice"));
        auto* name = dialog.findChild<QLineEdit*>(QStringLiteral("siteName"));
        name->setFocus();
        name->setText(QStringLiteral("Orchard"));
        QTest::keyClick(name, Qt::Key_Return);
        EXPECT_TRUE(dialog.isVisible()) << "Enter took the field";
        QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddHouse")), Qt::LeftButton);
        typeInto(dialog, "siteHouseRidge", QStringLiteral("6"));
        QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddLine")), Qt::LeftButton);
        typeInto(dialog, "siteLineFromNorth", QStringLiteral("-3"));
        typeInto(dialog, "siteLineToNorth", QStringLiteral("-3"));
        EXPECT_FALSE(dialog.findChild<QPushButton*>(QStringLiteral("siteAddLine"))->isEnabled()) << "a site has one";
        auto* make = dialog.findChild<QPushButton*>(QStringLiteral("makeSite"));
        make->setFocus();
        QTest::keyClick(make, Qt::Key_Return);
    });
    action("actionNew");
    const Design& design = document().design();
    EXPECT_EQ(design.site.name, "Orchard");
    ASSERT_EQ(design.site.buildings.size(), 1u);
    EXPECT_EQ(design.site.buildings[0].ridge, 6.0);
    EXPECT_EQ(design.site.buildings[0].outline.size(), 4u);
    ASSERT_TRUE(design.site.powerLine);
    EXPECT_EQ(design.site.powerLine->to.y, -3.0);
    for (const WantedBand& w : design.operation.bands)
        EXPECT_EQ(w.wish, w.band.name == "20 m" ? Wish::Must : w.band.name == "40 m" ? Wish::Nice : Wish::No) << w.band.name;
}

// Through stages and antennas, by keys and by the mouse's own buttons.
TEST_F(FirstHour, BackAndForwardGoTheWayOneCame)
{
    document().addAntenna(newAntenna(*shapes::findFamily("dipole"), 7.1e6, document().design().site));
    const Id first = document().design().antennas.front().id, second = document().design().antennas.back().id;
    ASSERT_NE(first, second);
    const auto place = [&] { return window().currentStage()->id(); };
    document().setCurrent(first);
    show("shape");
    show("bands");
    document().setCurrent(second);
    show("sky");
    action("actionBack");
    EXPECT_EQ(place(), QStringLiteral("bands"));
    EXPECT_EQ(document().current(), second);
    action("actionBack");
    EXPECT_EQ(document().current(), first);
    QTest::mouseClick(window().currentStage()->canvas(), Qt::BackButton); // a drawing takes clicks of its own
    EXPECT_EQ(place(), QStringLiteral("shape"));
    for (int i = 0; i < 3; ++i)
        QTest::mouseClick(&window(), Qt::ForwardButton);
    EXPECT_EQ(place(), QStringLiteral("sky"));
    EXPECT_EQ(document().current(), second);
    action("actionForward");
    EXPECT_EQ(place(), QStringLiteral("sky")) << "the end of the way";
    action("actionBack");
    show("feed");
    action("actionForward");
    EXPECT_EQ(place(), QStringLiteral("feed")) << "a new way begins where one turns off";
}

// The order of the Tab key is that of the eye, in every ledger.
TEST_F(FirstHour, TabFollowsTheVisibleOrder)
{
    for (int stage = 0; stage < window().stageCount(); ++stage) {
        window().showStage(stage);
        QTest::qWait(150); // inputs made just now are shown by the event loop
        expectReadingOrder(tabPlaces(window(), *window().currentStage()->ledger()), std::to_string(stage));
    }
}

TEST_F(FirstHour, DrawingsTakeFocusAndArrows)
{
    for (const char* name : {"shapeScene", "sitePlan"})
        EXPECT_TRUE(find<QWidget>(name)->focusPolicy() & Qt::TabFocus) << name;
    auto* scene = find<Scene>("shapeScene");
    scene->grab();
    scene->setFocus();
    QTest::keyClick(scene, Qt::Key_Space); // the first ring: the centre
    const double before = parameter("apex_height_m");
    QTest::keyClick(scene, Qt::Key_Up);
    EXPECT_NEAR(parameter("apex_height_m"), before + 0.05, 0.011);
}

// ---- slips

TEST_F(FirstHour, ATypedLengthThatLooksLikeASlipIsQuestioned)
{
    ASSERT_TRUE(settle());
    const double solved = solvedLength();
    const auto question = [&](double metres) {
        type("leg_m", QString::number(metres, 'f', 3) + QStringLiteral(" m"));
        find<ValueEdit>("apex_height_m")->setFocus();
        EXPECT_TRUE(settle());
        QTest::qWait(60);
        auto* label = find<QLabel>("leg_mQuestion");
        return label->isHidden() ? QString() : label->text();
    };
    EXPECT_TRUE(question(2.0 * solved).contains(QStringLiteral("twice")));
    EXPECT_TRUE(question(3.28 * solved).contains(QStringLiteral("feet taken for metres")));
    EXPECT_TRUE(question(0.97 * solved).isEmpty());
    EXPECT_TRUE(question(0.5 * solved + 3.4).isEmpty());
}

// 2026-11: after Enter Ctrl+Z put the field's text back, and the drawing only at the second press.
TEST_F(FirstHour, OneUndoAfterEnterTakesEverythingBack)
{
    show("shape");
    auto* field = find<QLineEdit>("apex_height_m");
    const double before = parameter("apex_height_m");
    const QString shown = field->text();
    field->setFocus();
    ASSERT_TRUE(waitedFor([&] { return field->hasFocus(); }, 2000));
    for (const char* typed : {"9.5", "9.50 m"}) { // as it is shown then, or otherwise
        field->selectAll();
        QTest::keyClicks(field, QLatin1String(typed));
        QTest::keyClick(field, Qt::Key_Return);
        ASSERT_DOUBLE_EQ(parameter("apex_height_m"), 9.5) << typed;
        QTest::keyClick(field, Qt::Key_Z, Qt::ControlModifier);
        EXPECT_DOUBLE_EQ(parameter("apex_height_m"), before) << typed;
        EXPECT_EQ(field->text(), shown) << typed;
    }
    field->selectAll();
    QTest::keyClicks(field, QStringLiteral("7"));
    QTest::keyClick(field, Qt::Key_Z, Qt::ControlModifier); // what is only typed is the field's own
    EXPECT_DOUBLE_EQ(parameter("apex_height_m"), before);
}

TEST_F(FirstHour, AMeasurementFarFromTheModelIsAskedAboutOnce)
{
    chooseAntenna(3);
    ASSERT_TRUE(settle());
    show("trim");
    ASSERT_TRUE(waitedFor([&] { return window().stage(QStringLiteral("trim"))->summary() == QStringLiteral("not measured yet"); }, 20000));
    click("addMeasurement"); // nothing typed
    EXPECT_TRUE(document().antenna().trim.measurements.empty());
    EXPECT_FALSE(find<QLabel>("trimDipQuestion")->isHidden());
    type("trimDip", QStringLiteral("19.5"));
    click("addMeasurement");
    EXPECT_TRUE(document().antenna().trim.measurements.empty());
    EXPECT_TRUE(find<QLabel>("trimDipQuestion")->text().contains(QStringLiteral("the model expects"), Qt::CaseInsensitive));
    click("addMeasurement");
    ASSERT_EQ(document().antenna().trim.measurements.size(), 1u);
    EXPECT_EQ(document().antenna().trim.measurements[0].dipSwr, 0.0) << "no SWR was typed";
    auto* dip = find<ValueEdit>("trimDip");
    dip->setFocus();
    QTest::keyClicks(dip, QStringLiteral("banana"));
    click("addMeasurement"); // 2026-11: logged the dip before
    EXPECT_EQ(document().antenna().trim.measurements.size(), 1u);
}

TEST_F(FirstHour, AnyLineOfTheLogIsMendedOrRemoved)
{
    chooseAntenna(0); // has a log
    ASSERT_GE(document().antenna().trim.measurements.size(), 2u);
    show("trim");
    auto* table = find<QTableView>("logTable");
    const Id first = document().antenna().trim.measurements[0].id;
    QAbstractItemModel& model = *table->model();
    EXPECT_FALSE(model.setData(model.index(0, 2), QStringLiteral("banana"), Qt::EditRole));
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("banana")));
    EXPECT_TRUE(model.setData(model.index(0, 2), QStringLiteral("6.95"), Qt::EditRole));
    EXPECT_DOUBLE_EQ(document().antenna().trim.measurements[0].dip, 6.95e6);
    table->selectRow(0);
    const std::size_t before = document().antenna().trim.measurements.size();
    QTest::keyClick(table, Qt::Key_Delete);
    EXPECT_EQ(document().antenna().trim.measurements.size(), before - 1);
    EXPECT_NE(document().antenna().trim.measurements[0].id, first);
}

// ---- see

TEST_F(FirstHour, TheWindowWorksFromSmallToLarge)
{
    for (const QSize size : {QSize(900, 600), QSize(1280, 720), QSize(1366, 740)}) {
        window().resize(size);
        QTest::qWait(30);
        EXPECT_EQ(window().size(), size);
        EXPECT_EQ(window().findChild<Trail*>()->narrow(), size.width() < 1100);
        for (int stage = 0; stage < window().stageCount(); ++stage) {
            window().showStage(stage);
            QTest::qWait(20);
            auto* ledger = window().currentStage()->ledger();
            EXPECT_LE(ledger->minimumSizeHint().width(), 292) << stage; // beside the scroll bar
            EXPECT_GE(window().currentStage()->canvas()->width(), 320);
        }
    }
}

TEST_F(FirstHour, MessagesLieOverThePageAndGo)
{
    auto* page = window().currentStage()->page();
    const QRect before = page->geometry();
    window().say(QStringLiteral("Something happened."));
    QTest::qWait(30);
    EXPECT_EQ(page->geometry(), before);
    EXPECT_TRUE(find<QLabel>("message")->isVisible());
    EXPECT_GT(find<QLabel>("message")->height(), 2 * find<QLabel>("message")->fontMetrics().height()) << "room for its words";
    QTest::mouseClick(find<QLabel>("message"), Qt::LeftButton);
    EXPECT_FALSE(find<QLabel>("message")->isVisible());
}

TEST(Slips, AreKnownByTheirRatioOrTheirDigits)
{
    const double f = 14.1e6;
    const shapes::AntennaShape shape = shapes::dipoleFamily().standardShape(f);
    const auto rules = shapes::dipoleFamily().rules(shape, shapes::dipoleFamily().tuned(shape).front());
    const double solved = 5.15, swapped = 0.5 * 648.0 * 0.3048 / 14.1;
    EXPECT_TRUE(slipQuestion(swapped, solved, rules)->english().find("468") != std::string::npos);
    EXPECT_TRUE(slipQuestion(0.5 * solved, solved, rules));
    EXPECT_TRUE(slipQuestion(0.3048 * solved, solved, rules)->english().find("0.305") != std::string::npos);
    for (double fine : {solved, 0.5 * 468.0 * 0.3048 / 14.1, 0.5 * 485.0 * 0.3048 / 14.1, 0.5 * 492.0 * 0.3048 / 14.1, 4.0, 6.1})
        EXPECT_FALSE(slipQuestion(fine, solved, rules)) << fine;
}

} // namespace
} // namespace vetchling::app
