#pragma once
/// The Trim page with an empty log, and the hands that sweep and calibrate there.

#include "tests/app/app_fixture.h"

#include "app/stages/trim/calibration_dialog.h"
#include "app/stages/trim/trim_board.h"
#include "app/widgets/value_edit.h"

namespace vetchling::app {

class TrimTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        document().editAntenna(QStringLiteral("begin"), {}, [](Antenna& a) { a.trim = {}; });
        ASSERT_TRUE(settle());
        show("trim");
        ASSERT_TRUE(waitedFor([&] { return find<QPushButton>("sweepNow")->isEnabled(); }, 30000));
    }
    Stage* trim() { return window().stage(QStringLiteral("trim")); }
    std::vector<Measurement> log() { return document().antenna().trim.measurements; }
    QString analyser() { return find<QLabel>("analyserState")->text(); }

    bool sweeps()
    {
        find<ValueEdit>("trimDip")->clearValue(units::System::Metric);
        click("sweepNow");
        return waitedFor([&] { return find<ValueEdit>("trimDip")->hasValue(); }, 30000);
    }

    /// Reads the three standards in the dialog, by keyboard alone.
    bool calibrates()
    {
        bool good = false;
        QTimer::singleShot(0, [&] {
            auto* dialog = window().findChild<CalibrationDialog*>();
            if (!dialog)
                return;
            for (const char* name : {"readOpen", "readShort", "readLoad"}) {
                auto* button = dialog->findChild<QPushButton*>(QLatin1String(name));
                if (!waitedFor([&] { return button->isEnabled() && button->isDefault(); }, 20000))
                    break;
                QTest::keyClick(dialog, Qt::Key_Return);
            }
            auto* outcome = dialog->findChild<QLabel*>(QStringLiteral("calibrationOutcome"));
            good = waitedFor([&] { return outcome->text().startsWith(QStringLiteral("Calibrated")); }, 20000);
            dialog->accept();
        });
        click("calibrate");
        return good;
    }

    QString advice() { return find<TrimBoard>("trimBoard")->headline(); }
    bool advised()
    {
        return waitedFor([&] { return !solver().busy() && !advice().startsWith(QStringLiteral("Being")); }, 30000);
    }
};

} // namespace vetchling::app
