#include "app/window/sweep_range.h"

#include "app/widgets/choice.h"
#include "app/widgets/typed.h"
#include "app/widgets/value_edit.h"
#include "app/window/dialogs.h"
#include "core/bands/wanted.h"

#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace vetchling::app {
namespace {

constexpr double around = 0.02; // of a band's edges, shown either side

} // namespace

SweepRangeDialog::SweepRangeDialog(const Design& design, const Id& band, QWidget* parent)
    : QDialog(parent), m_design(design), m_range(new Choice(this)), m_from(new ValueEdit(units::Quantity::Frequency, this)),
      m_to(new ValueEdit(units::Quantity::Frequency, this)), m_complaint(new QLabel(this))
{
    setObjectName(QStringLiteral("sweepRange"));
    setWindowTitle(tr("Save the sweep"));
    m_range->setObjectName(QStringLiteral("sweepBand"));
    m_range->setAccessibleName(tr("Range"));
    m_range->addItem(tr("own range"));
    for (const WantedBand& w : design.operation.bands)
        m_range->addItem(QString::fromStdString(w.band.name));
    m_from->setObjectName(QStringLiteral("sweepFrom"));
    m_to->setObjectName(QStringLiteral("sweepTo"));
    m_from->setAccessibleName(tr("From"));
    m_to->setAccessibleName(tr("To"));
    m_complaint->setProperty("role", "caution");
    m_complaint->setWordWrap(true);
    m_complaint->hide();
    for (ValueEdit* edit : {m_from, m_to}) {
        edit->setRange(lowestFrequency, highestFrequency);
        edit->setBandCentre([&design](const std::string& name) { return centreOf(design.operation.bands, name); });
        edit->setValue(edit == m_from ? 1e6 : 30e6, design.operation.system);
        connect(edit, &ValueEdit::edited, this, [this] { m_range->setCurrentIndex(0); });
        connect(edit, &ValueEdit::complained, m_complaint, [this](const QString& words) {
            m_complaint->setText(words);
            m_complaint->setVisible(!words.isEmpty());
        });
    }
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    auto* title = new QLabel(tr("Which range?"), this);
    title->setProperty("role", "title");
    layout->addWidget(title);
    auto* form = new QFormLayout;
    form->addRow(tr("Range"), m_range);
    form->addRow(tr("From"), m_from);
    form->addRow(tr("To"), m_to);
    layout->addLayout(form);
    layout->addWidget(m_complaint);
    layout->addWidget(okAndCancel(this, tr("Choose the file"), QStringLiteral("sweepGo")));
    connect(m_range, &QComboBox::activated, this, &SweepRangeDialog::take);
    const int place = indexOfBand(design, band);
    m_range->setCurrentIndex(place + 1);
    take(place + 1);
}

void SweepRangeDialog::take(int choice)
{
    if (choice <= 0)
        return;
    const Band& band = m_design.operation.bands[std::size_t(choice - 1)].band;
    m_from->setValue((1.0 - around) * band.from, m_design.operation.system);
    m_to->setValue((1.0 + around) * band.to, m_design.operation.system);
}

double SweepRangeDialog::from() const { return m_from->value(); }
double SweepRangeDialog::to() const { return m_to->value(); }

void SweepRangeDialog::accept()
{
    if (!takeTyped(this).isEmpty())
        return;
    if (to() > from()) {
        QDialog::accept();
        return;
    }
    m_complaint->setText(tr("The upper end must be above the lower end."));
    m_complaint->show();
}

} // namespace vetchling::app
