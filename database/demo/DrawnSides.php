<?php

declare(strict_types=1);

namespace Database\Demo;

use App\Actions\Deliver\AskForSnapshot;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Sources\KeepSchedule;
use App\Adapters\Sources\SourceKind;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\SourceConnection;
use App\Models\User;
use NineTally\Core\Row\Side;

/** What is drawn from where it lives: from the old system, which is a database, and from the new register, which is asked by the web. */
final readonly class DrawnSides
{
    private const SECONDS_TO_WAIT = 60;

    public function __construct(private AskForSnapshot $ask, private TakeDelivery $take, private KeepSchedule $keep) {}

    public function connect(Migration $migration, User $person): void
    {
        HarbourOffice::write(config()->string('nine-tally.source_files'));
        $kept = [
            HarbourOffice::NAME => [SourceKind::Sqlite, ['file' => HarbourOffice::FILE]],
            Feed::NAME => [SourceKind::Feed, [
                'url' => config()->string('nine-tally.demo_feed'), 'paging' => 'page', 'parameter' => 'page', 'records' => Feed::RECORDS,
            ]],
        ];
        foreach ($kept as $label => [$kind, $settings]) {
            SourceConnection::query()->firstOrCreate(
                ['migration_id' => $migration->id, 'label' => $label],
                ['kind' => $kind, 'settings' => $settings, 'user_id' => $person->id],
            );
        }
    }

    /** Both sides as they are now. */
    public function deliver(Dataset $dataset, DrawnFrom $drawn, User $person): void
    {
        foreach ([[Side::Source, OldSystem::NAME, $drawn->query()], [Side::Target, Feed::NAME, $drawn->path]] as [$side, $source, $what]) {
            if ($dataset->latestDelivery($side) === null) {
                $receipt = $this->drawn(($this->ask)($dataset, $side, ['source' => $source, 'sql' => $what], $person));
                $parts = $receipt->state === ReceiptState::Unpacked ? $receipt->unpacked_into ?? [] : [];
                ($this->take)($dataset, $side, $parts === [] ? [$receipt->id] : $parts, new DeliveryTerms);
            }
        }
        foreach (Side::cases() as $side) {
            $this->until(
                static fn(): bool => $dataset->latestDelivery($side) !== null,
                "The {$side->value} of {$dataset->name} was not delivered.",
            );
        }
    }

    /** Each working morning, before anybody is there. */
    public function schedule(Dataset $dataset, User $person): void
    {
        ($this->keep)(
            $dataset,
            [
                'expression' => '0 6 * * 1-5',
                'zone' => 'Europe/London',
                'on_arrival' => false,
                'in_place' => false,
                'most_apart' => 300,
                'is_on' => true,
            ],
            $person,
        );
    }

    private function drawn(Receipt $receipt): Receipt
    {
        $this->until(
            static fn(): bool => $receipt->refresh()->state !== ReceiptState::Receiving,
            'Nothing was drawn for the demo. Does a worker run?',
        );

        return $receipt->problem === null ? $receipt : throw new \RuntimeException($receipt->problem);
    }

    /** @param \Closure(): bool $isSo */
    private function until(\Closure $isSo, string $orElse): void
    {
        for ($waited = 0; ! $isSo(); $waited++) {
            if ($waited === self::SECONDS_TO_WAIT * 5) {
                throw new \RuntimeException($orElse);
            }
            usleep(200_000);
        }
    }
}
