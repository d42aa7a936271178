<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\ClaimExplanation;
use App\Models\Comment;
use App\Models\CorrectionSet;
use App\Models\Dataset;
use App\Models\DefectEntry;
use App\Models\Delivery;
use App\Models\EyeCheck;
use App\Models\EyeCheckPerson;
use App\Models\EyeVerdict;
use App\Models\Migration;
use App\Models\PlanVersion;
use App\Models\ReportText;
use App\Models\Ruling;
use App\Models\StartingPlan;
use App\Models\Tally;
use App\Models\TallyName;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use NineTally\Core\Row\Counted;

/**
 * What the trail tells of entries that are acts by themselves ({@see \App\Models\EntersTrail}), each as it is saved. Never a value of a
 * cell, and never what somebody wrote: it stands in the entry.
 */
final readonly class TrailOfEntries
{
    public function __construct(private Trail $trail, private Request $request) {}

    public function created(Model $entry): void
    {
        $told = match (true) {
            $entry instanceof Migration => [TrailAct::AddedMigration, $entry, $entry->name],
            $entry instanceof Dataset => [TrailAct::AddedDataset, $this->migration($entry->migration_id), $entry->name],
            $entry instanceof PlanVersion => [
                TrailAct::MadePlan,
                ...$this->ofDataset($entry->dataset_id, "version {$entry->number} of the plan"),
            ],
            $entry instanceof StartingPlan => [TrailAct::KeptPlan, $this->migration($entry->migration_id), $entry->name],
            $entry instanceof ClaimExplanation => [TrailAct::Explained, ...$this->ofDelivery($entry->delivery_id, $entry->claim + 1)],
            $entry instanceof TallyName => [TrailAct::NamedTally, ...$this->ofTally($entry->tally_id, self::renamed($entry))],
            $entry instanceof Comment => [TrailAct::Commented, ...$this->ofTally($entry->tally_id, "on a {$entry->place['kind']}")],
            $entry instanceof EyeCheck => [
                TrailAct::DrewEyeCheck,
                ...$this->ofTally($entry->tally_id, Counted::of((int) array_sum($entry->sizes), 'row')),
            ],
            $entry instanceof EyeCheckPerson => $entry->given_by === $entry->user_id
                ? null
                : [TrailAct::GaveEyeCheck, ...$this->ofCheck($entry->eye_check_id, "to {$this->name($entry->user_id)}")],
            $entry instanceof EyeVerdict => [
                TrailAct::LookedByEye, ...$this->ofCheck($entry->eye_check_id, "row {$entry->place} of the sample: {$entry->verdict}"),
            ],
            $entry instanceof CorrectionSet => [
                TrailAct::MadeCorrections,
                ...$this->ofTally(
                    $entry->tally_id,
                    "set {$entry->number}, ".Counted::of($entry->lines, 'line'),
                ),
            ],
            $entry instanceof DefectEntry => [TrailAct::AssignedDefect, ...$this->ofRuling($entry)],
            $entry instanceof ReportText => [
                TrailAct::WroteInReport,
                ...$this->ofTally(
                    $entry->tally_id,
                    "{$entry->place}, ".Counted::of(mb_strlen($entry->text), 'character'),
                ),
            ],
            default => null,
        };
        if ($told !== null) {
            [$act, $migration, $about] = $told;
            $this->trail->note($act, $this->person($entry), $about, $migration);
        }
    }

    public function updated(Model $entry): void
    {
        if (! $entry instanceof Dataset) {
            return;
        }
        $changed = array_filter([
            $entry->wasChanged('parameters') ? 'values of parameters: '.(implode(', ', array_keys($entry->parameters)) ?: 'none') : '',
            $entry->wasChanged('runs_on_delivery')
                ? 'a new delivery is tallied by itself: '.($entry->runs_on_delivery ? 'no → yes' : 'yes → no')
                : '',
        ]);
        if ($changed !== []) {
            $about = "{$entry->name}: ".implode('; ', $changed);
            $this->trail->note(TrailAct::ChangedDataset, $this->person($entry), $about, $this->migration($entry->migration_id));
        }
    }

    private function person(Model $entry): ?User
    {
        $attributes = $entry->getAttributes();
        $id = $entry instanceof EyeCheckPerson ? $attributes['given_by'] ?? null : $attributes['user_id'] ?? null;
        $asked = $this->request->user();

        return is_int($id) ? User::query()->find($id) : ($asked instanceof User ? $asked : null);
    }

    private static function renamed(TallyName $name): string
    {
        $before = TallyName::query()->where('tally_id', $name->tally_id)->where('id', '<', $name->id)->latest('id')->first()->name ?? '';

        return "\"{$before}\" → \"{$name->name}\"";
    }

    /** @return array{Migration, string} */
    private function ofTally(int $id, string $about): array
    {
        $tally = Tally::query()->findOrFail($id);

        return $this->ofDataset($tally->dataset_id, "tally {$tally->number}: {$about}", ', ');
    }

    /** @return array{Migration, string} */
    private function ofDataset(int $id, string $about, string $between = ': '): array
    {
        $dataset = Dataset::query()->findOrFail($id);

        return [$this->migration($dataset->migration_id), $dataset->name.$between.$about];
    }

    /** @return array{Migration, string} */
    private function ofDelivery(int $id, int $claim): array
    {
        $delivery = Delivery::query()->findOrFail($id);

        return $this->ofDataset(
            $delivery->dataset_id,
            "{$delivery->side->value} delivery {$delivery->number}: figure {$claim} of the deliverer",
            ', ',
        );
    }

    /** @return array{Migration, string} */
    private function ofCheck(int $id, string $about): array
    {
        return $this->ofTally(EyeCheck::query()->findOrFail($id)->tally_id, $about);
    }

    /** @return array{Migration, string} */
    private function ofRuling(DefectEntry $entry): array
    {
        $before = DefectEntry::query()->where('ruling_id', $entry->ruling_id)->where('id', '<', $entry->id)->latest('id')->first();
        $words = static fn(?DefectEntry $one): string => $one === null
            ? 'nobody'
            : $one->mends.($one->due === null ? '' : " until {$one->due}");

        return $this->ofDataset(
            Ruling::query()->findOrFail($entry->ruling_id)->dataset_id,
            "ruling {$entry->ruling_id} is mended by: {$words($before)} → {$words($entry)}",
        );
    }

    private function migration(int $id): Migration
    {
        return Migration::query()->findOrFail($id);
    }

    private function name(int $person): string
    {
        return User::query()->findOrFail($person)->name;
    }
}
