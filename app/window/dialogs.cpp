#include "app/window/dialogs.h"

#include "app/view/words.h"
#include "app/widgets/value_edit.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QIcon>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
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
    auto* box = new QDialogButtonBox(QDialogButtonBox::Close, dialog);
    QObject::connect(box, &QDialogButtonBox::rejected, dialog, &QDialog::reject);
    return box;
}

} // namespace

NewAntennaDialog::NewAntennaDialog(const Design& design, QWidget* parent)
    : QDialog(parent), m_design(design), m_family(new QComboBox(this)), m_name(new QLineEdit(this)),
      m_frequency(new ValueEdit(units::Quantity::Frequency, this))
{
    setWindowTitle(tr("A new antenna"));
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(10);
    layout->addWidget(heading(tr("A new antenna"), this));
    auto* summary = new QLabel(this);
    summary->setProperty("role", "sentence");
    summary->setWordWrap(true);
    summary->setMinimumWidth(380);
    auto* form = new QFormLayout;
    m_family->setObjectName(QStringLiteral("newFamily"));
    m_family->setAccessibleName(tr("Family"));
    for (const shapes::Family* f : shapes::families())
        m_family->addItem(coreWords(f->title()), QString::fromStdString(f->id()));
    m_name->setProperty("wide", true);
    m_name->setObjectName(QStringLiteral("newName"));
    m_name->setAccessibleName(tr("Name"));
    m_frequency->setObjectName(QStringLiteral("newFrequency"));
    m_frequency->setAccessibleName(tr("Design frequency"));
    m_frequency->setRange(lowestFrequency, highestFrequency);
    m_frequency->setValue(7.1e6, design.operation.system);
    for (const WantedBand& w : design.operation.bands)
        if (w.wish == Wish::Must)
            m_frequency->setValue(w.band.centre(), design.operation.system);
    form->addRow(tr("Shape"), m_family);
    form->addRow(tr("Design frequency"), m_frequency);
    form->addRow(tr("Name"), m_name);
    layout->addWidget(summary);
    layout->addLayout(form);
    auto* box = new QDialogButtonBox(this);
    auto* add = box->addButton(tr("Add it"), QDialogButtonBox::AcceptRole);
    add->setObjectName(QStringLiteral("newAdd"));
    add->setProperty("strong", true);
    box->addButton(QDialogButtonBox::Cancel);
    connect(box, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(box, &QDialogButtonBox::rejected, this, &QDialog::reject);
    layout->addWidget(box);
    connect(m_name, &QLineEdit::textEdited, this, [this] { m_named = true; });
    const auto describe = [this, summary] {
        const shapes::Family* f = shapes::families()[std::size_t(m_family->currentIndex())];
        summary->setText(coreWords(f->summary()));
        if (!m_named)
            m_name->setText(coreWords(f->title()));
    };
    connect(m_family, &QComboBox::currentIndexChanged, this, describe);
    describe();
}

Antenna NewAntennaDialog::antenna() const
{
    const shapes::Family* family = shapes::families()[std::size_t(m_family->currentIndex())];
    Antenna antenna;
    antenna.name = (m_name->text().trimmed().isEmpty() ? coreWords(family->title()) : m_name->text().trimmed()).toStdString();
    antenna.shape = family->standardShape(m_frequency->value());
    antenna.tuneForLowestSwr = family->usualGoal() == shapes::TuneGoal::LowestSwr;
    const PlanPoint extent = extentOf(m_design.site.boundary);
    antenna.shape.parameters["x_m"] = 0.5 * extent.x;
    antenna.shape.parameters["y_m"] = 0.5 * extent.y;
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
