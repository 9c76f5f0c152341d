#pragma once
/// A stranger at the real window: dialogs answered, keys pressed.
#include "tests/app/app_fixture.h"

#include "app/plots/scene/scene.h"
#include "app/plots/site_plan.h"
#include "app/stages/gallery/gallery.h"
#include "app/stages/trim/trim_board.h"
#include "app/widgets/choice.h"
#include "app/widgets/name_edit.h"
#include "app/widgets/value_edit.h"
#include "app/window/new_site.h"
#include "core/tune/slips.h"

#include <QDialogButtonBox>
#include <QMenu>
#include <QScrollArea>

namespace vetchling::app {

/// Runs as soon as a dialog of that name is open.
inline void whenOpen(const char* dialog, std::function<void(QWidget&)> does)
{
    auto* poll = new QTimer(qApp);
    QTimer::singleShot(10000, poll, &QObject::deleteLater);
    QObject::connect(poll, &QTimer::timeout, qApp, [poll, dialog, does = std::move(does)] {
        QWidget* open = QApplication::activeModalWidget();
        if (!open || open->objectName() != QLatin1String(dialog))
            return;
        poll->deleteLater();
        does(*open);
    });
    poll->start(20);
}

inline void typeInto(QWidget& dialog, const char* name, const QString& text)
{
    auto* edit = dialog.findChild<QLineEdit*>(QLatin1String(name));
    ASSERT_TRUE(edit) << name;
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, text);
    QTest::keyClick(edit, Qt::Key_Tab);
}

class FirstHour : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        activate();
    }

    /// A site of one's own: a pole and a tree in a garden, 20 m wanted, an inverted V on the pole.
    void makeGarden()
    {
        whenOpen("newSiteDialog", [](QWidget& dialog) {
            typeInto(dialog, "siteName", QStringLiteral("Rectory"));
            QTest::mouseClick(dialog.findChild<QToolButton*>(QStringLiteral("siteBand 20 m")), Qt::LeftButton);
            QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddSupport")), Qt::LeftButton);
            QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("makeSite")), Qt::LeftButton);
        });
        action("actionNew");
        activate();
        takeProposal("dipole");
    }
    void activate()
    {
        window().activateWindow();
        ASSERT_TRUE(QTest::qWaitForWindowActive(&window())); // for keys
    }
    /// Takes an antenna from the open gallery.
    void takeProposal(const char* id)
    {
        ASSERT_TRUE(window().galleryOpen());
        if (window().gallery().whichOne().isVisible())
            click("galleryCards");
        auto* card = find<GalleryCard>((std::string("proposal ") + id).c_str());
        QTest::mouseClick(card, Qt::LeftButton);
        const auto isOpen = [this] { return window().galleryOpen(); }; // it is tuned first
        const auto* sentence = window().gallery().findChild<QLabel*>(QStringLiteral("stageSentence"));
        ASSERT_TRUE(waitedFor([&] { return !isOpen() || sentence->text().contains(QStringLiteral("Press it again")); }, 60000));
        if (isOpen()) // what cannot be is said, and taken when it is pressed again
            QTest::mouseClick(card, Qt::LeftButton);
        ASSERT_FALSE(isOpen());
    }
    void action(const char* name) { window().findChild<QAction*>(QLatin1String(name))->trigger(); }
    Design empty() { return window().emptyDesign(); }
    QString said() { return find<QLabel>("message")->text(); }
};

} // namespace vetchling::app
