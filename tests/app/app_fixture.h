#pragma once
/// A real main window with a garden of five antennas, in a temporary home.

#include "app/view/often_used.h"
#include "app/window/main_window.h"
#include "app/window/start.h"
#include "core/files/design_file.h"
#include "tests/app/patience.h"

#include <QPlainTextEdit>
#include <QScrollBar>
#include <QSettings>
#include <QTemporaryDir>
#include <QtTest>

#include <gtest/gtest.h>

namespace vetchling::app {

class WindowTest : public ::testing::Test {
protected:
    void SetUp() override
    {
        QSettings().clear();
        qApp->setStyleSheet({}); // as a program that starts: under the one of the last test each widget would be styled many times
        m_window = std::make_unique<MainWindow>(QStringLiteral(VETCHLING_SOURCE_DATA), m_home.filePath(QStringLiteral("autosave")),
                                                qEnvironmentVariable("VETCHLING_TEST_TABLES")); // of all tests together
        m_window->solver().setRest(5);
        openGarden();
        m_window->show();
    }
    /// Not the demo, which may change: a design that the tests know.
    static QString garden() { return QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling"); }
    void openGarden()
    {
        Result<Design> design = files::readDesign(garden().toStdString());
        ASSERT_TRUE(design.ok()) << design.firstFault();
        Design garden = std::move(design).value();
        garden.operation.system = m_window->emptyDesign().operation.system;
        m_window->fileDesk().openNew(std::move(garden));
    }
    void TearDown() override
    {
        m_window->document().undoStack().setClean(); // so that closing asks nothing
        m_window.reset();
    }

    MainWindow& window() { return *m_window; }
    Document& document() { return m_window->document(); }
    SolveService& solver() { return m_window->solver(); }

    template <class Widget> Widget* find(const char* name)
    {
        auto* widget = m_window->findChild<Widget*>(QLatin1String(name));
        EXPECT_TRUE(widget) << name;
        return widget;
    }

    /// Waits until the solver has nothing left to do for the present design.
    bool settle()
    {
        return waitedFor([this] { return !solver().busy() && (solver().detail() || !solver().faults().empty()); }, 60000);
    }

    void show(const char* stage)
    {
        const char* ids[] = {"site", "shape", "bands", "sky", "feed", "build", "trim"};
        for (int i = 0; i < 7; ++i)
            if (QLatin1String(stage) == QLatin1String(ids[i]))
                m_window->showStage(i);
    }

    /// Types into an input as a user would and leaves it.
    void type(const char* name, const QString& text)
    {
        auto* edit = find<QLineEdit>(name);
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }

    void click(const char* name)
    {
        auto* button = find<QAbstractButton>(name);
        ASSERT_TRUE(button->isEnabled()) << name;
        QTest::mouseClick(button, Qt::LeftButton);
    }

    void choose(const char* name, int index)
    {
        auto* box = find<QComboBox>(name);
        box->setCurrentIndex(index);
        emit box->activated(index);
    }

    /// By its place in the garden's file.
    void chooseAntenna(int place) { document().setCurrent(document().design().antennas.at(std::size_t(place)).id); }
    void chooseBand(int place) { document().selectBand(document().design().operation.bands.at(std::size_t(place)).id); }
    double solvedLength() { return solver().detail()->lengths.at(0).solved.value_or(0.0); }

    QString pageSentence()
    {
        return m_window->findChild<QStackedWidget*>(QStringLiteral("stages"))
            ->currentWidget()
            ->findChild<QLabel*>(QStringLiteral("stageSentence"))
            ->text();
    }
    double parameter(const char* key) { return document().antenna().shape.parameters.at(key); }
    QString file(const char* name) { return m_home.filePath(QLatin1String(name)); }

    QTemporaryDir m_home;
    std::unique_ptr<MainWindow> m_window;
};

} // namespace vetchling::app
