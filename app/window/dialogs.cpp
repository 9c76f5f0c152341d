#include "app/window/dialogs.h"

#include "app/view/words.h"
#include "app/widgets/choice.h"
#include "app/widgets/typed.h"
#include "app/widgets/value_edit.h"
#include "core/bands/wanted.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QIcon>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
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

/// The last band that is a must, else the first that is nice.
double proposedFrequency(const Design& design)
{
    double nice = 0.0, must = 0.0;
    for (const WantedBand& w : design.operation.bands) {
        if (w.wish == Wish::Must)
            must = w.band.centre();
        if (w.wish == Wish::Nice && nice == 0.0)
            nice = w.band.centre();
    }
    constexpr double usual = 7.1e6;
    return must > 0.0 ? must : nice > 0.0 ? nice : usual;
}

/// A title within a name: "20 m dipole".
QString inSentence(QString title)
{
    if (QLocale().language() == QLocale::English || QLocale().language() == QLocale::C)
        title[0] = title[0].toLower();
    return title;
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

NewAntennaDialog::NewAntennaDialog(const Design& design, QWidget* parent)
    : QDialog(parent), m_design(design), m_family(new Choice(this)), m_support(new Choice(this)), m_name(new QLineEdit(this)),
      m_summary(new QLabel(this)), m_frequency(new ValueEdit(units::Quantity::Frequency, this))
{
    setObjectName(QStringLiteral("newAntennaDialog"));
    setWindowTitle(tr("A new antenna"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(10);
    layout->addWidget(heading(tr("A new antenna"), this));
    m_summary->setProperty("role", "sentence");
    m_summary->setWordWrap(true);
    m_summary->setMinimumWidth(400);
    m_family->setObjectName(QStringLiteral("newFamily"));
    m_family->setAccessibleName(tr("Shape"));
    for (const shapes::Family* f : shapes::families())
        m_family->addItem(coreWords(f->title()), QString::fromStdString(f->id()));
    m_support->setObjectName(QStringLiteral("newSupport"));
    m_support->setAccessibleName(tr("Hang it from"));
    for (const Support& s : design.site.supports)
        m_support->addItem(tr("%1, %2").arg(QString::fromStdString(s.name), heightWords(s.height, design.operation.system)),
                           QString::fromStdString(s.id));
    m_support->addItem(tr("nothing yet: in the middle of the site"));
    m_name->setProperty("wide", true);
    m_name->setObjectName(QStringLiteral("newName"));
    m_name->setAccessibleName(tr("Name"));
    m_frequency->setObjectName(QStringLiteral("newFrequency"));
    m_frequency->setAccessibleName(tr("Design frequency"));
    m_frequency->setRange(lowestFrequency, highestFrequency);
    m_frequency->setBandCentre([&design](const std::string& name) { return centreOf(design.operation.bands, name); });
    m_frequency->setHelp(tr("a frequency, or a band by its name: 20 m"));
    m_frequency->setValue(proposedFrequency(design), design.operation.system);
    auto* complaint = new QLabel(this);
    complaint->setObjectName(QStringLiteral("newComplaint"));
    complaint->setProperty("role", "caution");
    complaint->setWordWrap(true);
    complaint->hide();
    connect(m_frequency, &ValueEdit::complained, complaint, [complaint](const QString& words) {
        complaint->setText(words);
        complaint->setVisible(!words.isEmpty());
    });
    auto* form = new QFormLayout;
    form->addRow(tr("Shape"), m_family);
    form->addRow(tr("Design frequency, or band"), m_frequency);
    form->addRow(complaint);
    form->addRow(tr("Hang it from"), m_support);
    form->addRow(tr("Name"), m_name);
    layout->addWidget(m_summary);
    layout->addLayout(form);
    layout->addWidget(okAndCancel(this, tr("Add it"), QStringLiteral("newAdd")));
    connect(m_family, &QComboBox::currentIndexChanged, this, &NewAntennaDialog::describe);
    connect(m_frequency, &ValueEdit::edited, this, &NewAntennaDialog::describe);
    describe();
}

/// The summary of the family, and a name until one is typed.
void NewAntennaDialog::describe()
{
    const shapes::Family* family = shapes::families()[std::size_t(m_family->currentIndex())];
    m_summary->setText(coreWords(family->summary()));
    const Antenna antenna = newAntenna(*family, m_frequency->value(), m_design.site);
    const std::optional<std::size_t> hangs = family->hangsBy(antenna.shape);
    m_support->setEnabled(hangs.has_value());
    int tallest = m_support->count() - 1;
    for (int i = 0; i < int(m_design.site.supports.size()); ++i)
        if (tallest == m_support->count() - 1 ||
            m_design.site.supports[std::size_t(i)].height > m_design.site.supports[std::size_t(tallest)].height)
            tallest = i;
    m_support->setCurrentIndex(hangs ? tallest : m_support->count() - 1);
    if (m_name->isModified())
        return;
    const WantedBand* band = findBand(m_design, bandFor(m_design, m_frequency->value()));
    const bool held = band && m_frequency->value() >= band->band.from && m_frequency->value() <= band->band.to;
    m_name->setText(held ? tr("%1 %2").arg(QString::fromStdString(band->band.name), inSentence(coreWords(family->title())))
                         : coreWords(family->title()));
}

void NewAntennaDialog::accept()
{
    if (takeTyped(this).isEmpty())
        QDialog::accept();
}

Antenna NewAntennaDialog::antenna() const
{
    const shapes::Family* family = shapes::families()[std::size_t(m_family->currentIndex())];
    Site site = m_design.site; // with the chosen support alone
    const Id support = m_support->currentData().toString().toStdString();
    std::erase_if(site.supports, [&](const Support& s) { return s.id != support; });
    Antenna antenna = newAntenna(*family, m_frequency->value(), site);
    const QString name = m_name->text().trimmed();
    antenna.name = (name.isEmpty() ? coreWords(family->title()) : name).toStdString();
    return antenna;
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
