#include "app/window/dialogs.h"

#include <QDialogButtonBox>
#include <QGridLayout>
#include <QIcon>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>

namespace vetchling::app {
namespace {

QLabel* heading(const QString& words, QWidget* parent)
{
    auto* label = new QLabel(words, parent);
    label->setProperty("role", "title");
    return label;
}

QDialogButtonBox* closeButton(QDialog* dialog)
{
    auto* box = new QDialogButtonBox(dialog);
    box->addButton(QObject::tr("Close"), QDialogButtonBox::RejectRole);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    return box;
}

} // namespace

QDialogButtonBox* okAndCancel(QDialog* dialog, const QString& words, const QString& objectName)
{
    auto* box = new QDialogButtonBox(dialog);
    auto* good = box->addButton(words, QDialogButtonBox::AcceptRole);
    good->setObjectName(objectName);
    good->setProperty("strong", true);
    good->style()->unpolish(good);
    good->style()->polish(good);
    good->setDefault(true);
    box->addButton(QObject::tr("Cancel"), QDialogButtonBox::RejectRole)->setAutoDefault(false);
    QObject::connect(box, &QDialogButtonBox::accepted, dialog, &QDialog::accept);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    return box;
}

QDialog* makeShortcutSheet(const std::vector<Shortcut>& shortcuts, QWidget* parent)
{
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("shortcutSheet"));
    dialog->setWindowTitle(QObject::tr("Keys"));
    auto* layout = new QVBoxLayout(dialog);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->addWidget(heading(QObject::tr("Keys"), dialog));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(24);
    grid->setVerticalSpacing(4);
    const int rows = int(shortcuts.size() + 1) / 2;
    for (std::size_t i = 0; i < shortcuts.size(); ++i) {
        const int row = int(i) % rows, column = 2 * (int(i) / rows);
        auto* keys = new QLabel(shortcuts[i].keys, dialog);
        keys->setProperty("role", "figure");
        grid->addWidget(keys, row, column);
        grid->addWidget(new QLabel(shortcuts[i].does, dialog), row, column + 1);
    }
    layout->addLayout(grid);
    layout->addWidget(closeButton(dialog));
    return dialog;
}

QDialog* makeAbout(QWidget* parent)
{
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("aboutDialog"));
    dialog->setWindowTitle(QObject::tr("About Vetchling"));
    auto* layout = new QVBoxLayout(dialog);
    layout->setContentsMargins(24, 20, 24, 16);
    layout->setSpacing(10);
    auto* mark = new QLabel(dialog);
    mark->setPixmap(QIcon(QStringLiteral(":/icons/vetchling.svg")).pixmap(64, 64));
    layout->addWidget(mark);
    layout->addWidget(heading(QObject::tr("Vetchling %1").arg(QStringLiteral(VETCHLING_VERSION)), dialog));
    auto* words = new QLabel(QObject::tr("Plans, models, cuts and trims wire antennas over your own ground.\n\n"
                                         "Free software under the GNU General Public License, version 3 or later; there is no warranty.\n"
                                         "The Lato typeface: Copyright 2010-2014 Łukasz Dziedzic, SIL Open Font License 1.1.\n"
                                         "Built with Qt 6 (LGPL 3), OpenBLAS and LAPACK (BSD), oneTBB (Apache 2.0), Boost (BSL 1.0),\n"
                                         "muParser (BSD), nlohmann-json, {fmt} (MIT) and CLI11 (BSD).\n\n"
                                         "Results are advice. Follow local codes and your licence; ask licensed practitioners\n"
                                         "about climbing, power lines, earthing and lightning."),
                             dialog);
    layout->addWidget(words);
    layout->addWidget(closeButton(dialog));
    return dialog;
}

} // namespace vetchling::app
