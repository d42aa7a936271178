<?php

declare(strict_types=1);

/*
 * Work of each kind that an installation does, begun at will on its demo, for scripts that disturb it: bench/kills.php, bench/fill.php.
 */

use App\Actions\Deliver\AnnouncePart;
use App\Actions\Deliver\AskForSnapshot;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\LookAtReceipt;
use App\Actions\Deliver\ReceiveChunk;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Retention\PurgeContent;
use App\Actions\Sources\DrawDataset;
use App\Actions\Tally\StartRun;
use App\Adapters\Storage\BlobStore;
use App\Jobs\BuildPack;
use App\Jobs\PrintReport;
use App\Jobs\ProfileDelivery;
use App\Jobs\WriteFindings;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use App\Models\DrawState;
use App\Models\Migration;
use App\Models\Pack;
use App\Models\PackOrder;
use App\Models\PurgeEnd;
use App\Models\ReportOrder;
use App\Models\RunState;
use App\Models\SealEntry;
use App\Models\User;
use App\Models\Workbook;
use App\Questions\Answers;
use App\Questions\ColumnCombinations;
use App\Rulings\FindingSet\Filter;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Row\Side;
use NineTally\Core\Seal\PackCheck;

/** @param array<string, array<string, int>> $ends kind of work => what became of it => how often */
function printEnds(array $ends): void
{
    foreach ($ends as $kind => $counts) {
        printf(
            "%-10s %s\n",
            $kind,
            implode(', ', array_map(static fn(string $verdict, int $count): string => "{$verdict} {$count}", array_keys($counts), $counts)),
        );
    }
}

$person = User::query()->where('email', 'like', 'analyst@%')->firstOrFail();
$moorings = Dataset::query()->where('name', 'Moorings')->firstOrFail();
$licences = Dataset::query()->where('name', 'Licences')->firstOrFail();
$inspections = Dataset::query()->where('name', 'Inspections')->firstOrFail();
$spare = Migration::query()->firstOrFail()->datasets()->firstOrCreate(['name' => 'For kills']);
$source = $licences->latestDelivery(Side::Source) ?? throw new LogicException('The demo has it.');
$owner = User::query()->where('email', 'like', 'owner@%')->firstOrFail();
$signIn = array_values(array_filter(
    file(storage_path('work/demo-sign-ins'), FILE_IGNORE_NEW_LINES) ?: [],
    static fn(string $line): bool => str_starts_with($line, 'owner@'),
))[0] ?? throw new LogicException('The demo has an owner.');
$password = explode("\t", $signIn)[1];
$findings = DB::table('row_findings')->where('tally_id', $moorings->latestTally()->id)->count();

/**
 * Each begins its work and gives what tells how it is: null while it goes on, else what became of it.
 *
 * @return array<string, Closure(): Closure(): ?string>
 */
return [
    'tally' => static function () use ($moorings, $person, $findings): Closure {
        $run = app(StartRun::class)($moorings, $person);

        return static function () use ($run, $findings): ?string {
            if (! $run->refresh()->state->isOver()) {
                return null;
            }
            $found = DB::table('row_findings')->where('tally_id', $run->tally_id ?? 0)->count();

            return $run->state !== RunState::Done
                ? "failed: {$run->problem}"
                : ($found === $findings
                    ? 'done'
                    : "WRONG: {$found} of {$findings} findings");
        };
    },
    'draw' => static function () use ($inspections, $person): Closure {
        $of = static fn(): array => [
            $inspections->deliveries()->where('side', 'source')->count(),
            $inspections->deliveries()->where('side', 'target')->count(),
            $inspections->tallies()->count(),
        ];
        $before = $of();
        $draw = app(DrawDataset::class)($inspections, $person);

        return static function () use ($draw, $of, $before): ?string {
            $state = $draw->refresh()->state;
            $came = array_map(static fn(int $now, int $then): int => $now - $then, $of(), $before);

            return match (true) {
                in_array($state->value, DrawState::going(), true) => null,
                $state !== DrawState::Done => 'failed: '.($draw->log[array_key_last($draw->log)]['said'] ?? ''),
                $came === [1, 1, 1] => 'done',
                default => 'WRONG: '.implode(', ', $came).' deliveries of each side, and tallies',
            };
        };
    },
    'workbook' => static function () use ($moorings, $person): Closure {
        $tally = $moorings->latestTally();
        $workbook = Workbook::askFor($person, $moorings->id, 'differences.xlsx');
        WriteFindings::dispatch($workbook->id, $tally->id, Filter::from([]), $person->id);

        return static fn(): ?string => match ($workbook->refresh()->state) {
            'asked' => null, 'written' => 'done', default => "failed: {$workbook->problem}",
        };
    },
    'profile' => static function () use ($source): Closure {
        DeliveryProfile::query()->where('delivery_id', $source->id)->update(['columns' => null, 'problem' => null]);
        ProfileDelivery::dispatch($source->id);

        return static function () use ($source): ?string {
            $profile = DeliveryProfile::query()->findOrFail($source->id);

            return $profile->columns !== null ? 'done' : ($profile->problem === null ? null : "failed: {$profile->problem}");
        };
    },
    'answer' => static function () use ($source): Closure {
        $question = new ColumnCombinations($source->id, ['state', 'season', 'agent']);
        Answer::query()->whereKey(app(Answers::class)->digest($question))->delete();
        app(Answers::class)->to($question);

        return static function () use ($question): ?string {
            $answer = Answer::query()->findOrFail(app(Answers::class)->digest($question));

            return $answer->isWaiting() ? null : ($answer->state === 'answered' ? 'done' : "failed: {$answer->problem}");
        };
    },
    'report' => static function () use ($moorings, $person): Closure {
        $order = ReportOrder::query()->create(['tally_id' => $moorings->latestTally()->id, 'state' => 'queued', 'user_id' => $person->id]);
        PrintReport::dispatch($order->id);

        return static fn(): ?string => match ($order->refresh()->state) {
            'done' => 'done', 'failed' => "failed: {$order->problem}", default => null,
        };
    },
    'pack' => static function () use ($moorings, $person): Closure {
        $order = PackOrder::query()->create([
            'tally_id' => $moorings->latestTally()->id, 'has_clear_values' => false, 'state' => 'queued', 'user_id' => $person->id,
        ]);
        BuildPack::dispatch($order->id);

        return static function () use ($order): ?string {
            if ($order->refresh()->state !== 'done') {
                return $order->state === 'failed' ? "failed: {$order->problem}" : null;
            }
            $pack = Pack::query()->findOrFail($order->pack_id);
            $fits = PackCheck::of(app(BlobStore::class)->path($pack->digest), $pack->seal()->firstOrFail()->key_fingerprint)->fits();
            $isChained =
                SealEntry::query()->whereNull('previous_id')->count() === 1 && SealEntry::query()->count() === Pack::query()->count();

            return $fits && $isChained ? 'done' : 'WRONG: the pack does not fit, or its seal is not in the chain';
        };
    },
    // Of what was delivered before, the act is entered; killed is whoever removes its files.
    'purge' => static function () use ($spare, $owner, $password): Closure {
        $delivery = Delivery::query()->where('dataset_id', $spare->id)->whereDoesntHave('purge')->latest('id')->first();
        if ($delivery === null) {
            return static fn(): string => 'done';
        }
        app(PurgeContent::class)($spare->migration, [$delivery->id], 'for kills', $owner, $password, '');

        return static fn(): ?string => PurgeEnd::query()->whereKey($delivery->purge()->firstOrFail()->id)->exists()
            ? (app(BlobStore::class)->has($delivery->digest) ? 'WRONG: its bytes are there' : 'done')
            : null;
    },
    'delivery' => static function () use ($spare, $source, $person): Closure {
        $bytes = '';
        for ($row = 0; $row < 150_000; $row++) {
            $bytes .= "KB,{$row},holder {$row}\n";
        }
        $bytes = "basin,berth,holder\n".$bytes.mt_rand()."\n";
        $receipt = app(AnnouncePart::class)($spare, Side::Source, 'kills.csv', strlen($bytes), $person);
        app(ReceiveChunk::class)->write($receipt, 0, $bytes);
        app(LookAtReceipt::class)($receipt->refresh());
        app(TakeDelivery::class)($spare, Side::Source, [$receipt->id], new DeliveryTerms);

        return static function () use ($receipt): ?string {
            return match ($receipt->refresh()->state->value) {
                'delivered' => $receipt->records_read === 150_001 ? 'done' : "WRONG: {$receipt->records_read} records",
                'refused' => "failed: {$receipt->problem}",
                default => null,
            };
        };
    },
    'query' => static function () use ($spare, $person): Closure {
        $sql = 'SELECT a.holder_no, b.name FROM holders a, holders b ORDER BY 1, 2';
        $receipt = app(AskForSnapshot::class)($spare, Side::Target, ['source' => 'Old system', 'sql' => $sql], $person);

        return static fn(): ?string => match ($receipt->refresh()->state->value) {
            'received' => 'done', 'refused' => "failed: {$receipt->problem}", default => null,
        };
    },
];
