<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Access\GiveRole;
use App\Actions\Board\AddMigration;
use App\Actions\Deliver\AnnouncePart;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\EnterDelivery;
use App\Actions\Deliver\LookAtReceipt;
use App\Actions\Deliver\ReceiveChunk;
use App\Actions\Match\DraftOf;
use App\Actions\Match\SaveDraft;
use App\Actions\Tally\StartRun;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\PublishedFigure;
use App\Models\Receipt;
use App\Models\Role;
use App\Models\RoleEntry;
use App\Models\RunState;
use App\Models\User;
use Database\Demo\Agents;
use Database\Demo\BerthCharges;
use Database\Demo\BerthChargesPlan;
use Database\Demo\DemoDataset;
use Database\Demo\DemoFiles;
use Database\Demo\DemoWriter;
use Database\Demo\DrawnFrom;
use Database\Demo\DrawnSides;
use Database\Demo\Holders;
use Database\Demo\Inspections;
use Database\Demo\SignOffs;
use Database\Demo\Wherrymoor;
use Illuminate\Console\Command;
use Illuminate\Support\Str;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Row\Side;

/** Loads Wherrymoor Navigation by the same actions as a person takes. Run again it finds its work done. */
final class LoadDemo extends Command
{
    protected $signature = 'nine-tally:demo';

    protected $description = 'Loads the demo migration, with people to sign in as';

    private const MIGRATION = 'Wherrymoor cutover';

    /** A chunk as the browser would send it. */
    private const CHUNK_BYTES = 4 * 1024 * 1024;

    private const SECONDS_TO_WAIT = 240;

    public function handle(AddMigration $addMigration, GiveRole $giveRole, SignOffs $signOffs, DrawnSides $drawn): int
    {
        $analyst = $this->person('Ruth Osei', 'analyst@wherrymoor.example');
        $manager = $this->person('Ines Varga', 'manager@wherrymoor.example');
        $owner = $this->person('Tove Lindqvist', 'owner@wherrymoor.example');
        $auditor = $this->person('Imre Halloway', 'auditor@wherrymoor.example');
        // Keeps people and roles, and sees nothing of the migration.
        $this->person('Greta Holm', 'administrator@wherrymoor.example', isAdministrator: true);
        $migration = Migration::query()->where('name', self::MIGRATION)->first();
        if ($migration === null) {
            $migration = $addMigration(
                ['name' => self::MIGRATION, 'source_label' => 'Old register', 'target_label' => 'New register'],
                $analyst,
            );
        }
        // Who has come later gets the role now; one that was ended or changed stays so.
        foreach ([[$manager, Role::TestManager], [$owner, Role::DataOwner], [$auditor, Role::Auditor]] as [$person, $role]) {
            if (RoleEntry::query()->where('migration_id', $migration->id)->where('user_id', $person->id)->doesntExist()) {
                $giveRole($migration, $person, $role, by: null);
            }
        }

        $signOffs->terms($migration, $manager);
        $folder = storage_path('work/demo');
        @mkdir($folder, 0700, true);
        $agents = $this->dataset($migration, Agents::NAME);
        if (! $agents->tallies()->exists()) {
            $this->load($agents, Agents::write($folder), Agents::plan(), $analyst);
        }
        $drawn->connect($migration, $analyst);
        foreach (Wherrymoor::datasets() as $demo) {
            $dataset = $this->dataset($migration, Str::ucfirst($demo->name));
            if ($demo->drawn !== null) {
                $this->draw($dataset, $demo->drawn, $demo->plan(), $analyst, $drawn);
            } elseif (! $dataset->tallies()->exists()) {
                $this->load($dataset, $this->files($demo, $folder), $demo->plan(), $analyst, $demo);
            }
        }
        $this->loadCharges($migration, $folder, $analyst);
        $holders = $this->dataset($migration, Holders::NAME);
        if (! $holders->tallies()->exists()) {
            $this->load($holders, Holders::write($folder), Holders::plan(), $analyst);
        }
        $this->draw($this->dataset($migration, Inspections::NAME), Inspections::drawn(), Inspections::plan(), $analyst, $drawn);
        $withPassword = fn(User $person): array => [$person->refresh(), fn(): string => $this->passwordOf($person)];
        $signOffs($migration, array_map($withPassword, ['analyst' => $analyst, 'manager' => $manager, 'owner' => $owner]));

        return self::SUCCESS;
    }

    /** @return array{source: list<string>, target: list<string>} paths of the parts of each side */
    private function files(DemoDataset $demo, string $folder): array
    {
        $paths = Wherrymoor::generator($demo)->write($folder);
        $files = $demo->files;

        return [
            'source' => $files->totalled === null
                ? [$paths['source']]
                : (new DemoWriter($files->sourceDelimiter, $files->sourceLineEnd))
                    ->divide($paths['source'], array_keys($files->parts), $files->totalled),
            'target' => [$paths['target']],
        ];
    }

    /**
     * What is not handed over as files: drawn now, and from now on by schedule.
     *
     * @param  array<string, mixed>  $plan
     */
    private function draw(Dataset $dataset, DrawnFrom $from, array $plan, User $analyst, DrawnSides $sides): void
    {
        if (! $dataset->tallies()->exists()) {
            $sides->deliver($dataset, $from, $analyst);
            $this->load($dataset, ['source' => [], 'target' => []], $plan, $analyst);
            $sides->schedule($dataset, $analyst);
        }
    }

    /** Wide against long, and the tables that both sides are looked up in. */
    private function loadCharges(Migration $migration, string $folder, User $analyst): void
    {
        $dataset = $this->dataset($migration, 'Berth charges');
        if ($dataset->tallies()->exists()) {
            return;
        }
        $demo = new BerthCharges(Wherrymoor::SEED);
        $made = $demo->write($folder);
        foreach (BerthCharges::REFERENCES as $name) {
            $reference = $this->dataset($migration, $name);
            if ($reference->latestDelivery(Side::Source) === null) {
                $this->deliver($reference, Side::Source, [$made[$name]], $analyst, new DeliveryTerms);
            }
        }
        $this->load($dataset, $made, BerthChargesPlan::document(), $analyst);
        $this->publish($dataset, $made['truth']['sums'], $analyst);
    }

    /**
     * What the trust printed of the charges: one basin as the old register has it, and all of them with two digits changed about.
     *
     * @param  array<string, array{source: int, target: int}>  $sums  in pence, by basin
     */
    private function publish(Dataset $dataset, array $sums, User $analyst): void
    {
        $written = static fn(int $pence): string => sprintf('%d.%02d', intdiv($pence, 100), $pence % 100);
        $all = array_sum(array_column($sums, 'source'));
        foreach ([[[], $written($all + 900)], [['KB'], $written($sums['KB']['source'])]] as [$labels, $figure]) {
            PublishedFigure::query()->create([
                'dataset_id' => $dataset->id,
                'total' => CanonicalJson::of(BerthChargesPlan::totals()[0]),
                'labels' => $labels,
                'figure' => $figure,
                'publisher' => 'Annual report, page 14',
                'user_id' => $analyst->id,
            ]);
        }
    }

    private function dataset(Migration $migration, string $name): Dataset
    {
        return $migration->datasets()->firstOrCreate(['name' => $name]);
    }

    /**
     * @param  array{source: list<string>, target: list<string>, ...}  $paths  of the parts of each side
     * @param  array<string, mixed>  $plan
     */
    private function load(Dataset $dataset, array $paths, array $plan, User $analyst, ?DemoDataset $demo = null): void
    {
        $this->line("Loading the demo: {$dataset->name}");
        foreach (Side::cases() as $side) {
            if ($dataset->latestDelivery($side) === null) {
                $this->deliver(
                    $dataset,
                    $side,
                    $paths[$side->value],
                    $analyst,
                    new DeliveryTerms(asOf: $side === Side::Source ? '2026-11-23T18:00:00Z' : '2026-11-24T02:10:00Z'),
                    $side === Side::Source ? $demo : null,
                );
            }
        }
        app(DraftOf::class)($dataset);
        app(SaveDraft::class)($dataset, $plan, $analyst);
        $run = app(StartRun::class)($dataset, $analyst);
        for ($waited = 0; $waited < self::SECONDS_TO_WAIT * 5 && ! $run->refresh()->state->isOver(); $waited++) {
            usleep(200_000);
        }
        if ($run->state !== RunState::Done) {
            throw new \RuntimeException(
                "The demo's {$dataset->name} could not be tallied: ".($run->problem ?? "the run is {$run->state->value}"),
            );
        }
    }

    /** @param list<string> $paths */
    private function deliver(
        Dataset $dataset,
        Side $side,
        array $paths,
        User $analyst,
        DeliveryTerms $terms,
        ?DemoDataset $demo = null,
    ): void {
        $receipts = [];
        foreach ($paths as $path) {
            $receipt = app(AnnouncePart::class)($dataset, $side, basename($path), (int) filesize($path), $analyst);
            $file = fopen($path, 'rb') ?: throw new \RuntimeException('The demo file is gone.');
            while (($chunk = (string) stream_get_contents($file, self::CHUNK_BYTES)) !== '') {
                $receipt = app(ReceiveChunk::class)->write($receipt, $receipt->received_bytes, $chunk);
            }
            fclose($file);
            app(LookAtReceipt::class)($receipt);
            $hasTrailer = isset($demo->files->parts[basename($path)]);
            $receipt->update([
                'state' => 'reading',
                // Totals at the end of a part are left out by a step of the plan, with its reason: the demo is to show one.
                'format' => $receipt->partFormat()->with(['skipBelow' => $hasTrailer ? 1 : 0])->toArray(),
            ]);
            $receipts[] = $receipt->refresh();
        }
        $terms = $demo === null || $demo->files->parts === [] ? $terms : $this->termsOfParts($demo, $terms, $receipts);
        app(EnterDelivery::class)($receipts === [] ? throw new \LogicException('The demo has no such side.') : $receipts, $terms);
    }

    /** @param list<Receipt> $receipts in the order of the parts */
    private function termsOfParts(DemoDataset $demo, DeliveryTerms $terms, array $receipts): DeliveryTerms
    {
        $partLabels = $trailers = [];
        foreach ($receipts as $receipt) {
            $partLabels[$receipt->id] = $demo->files->parts[$receipt->file_name];
            $trailers[$receipt->id] = ['rows' => 2, 'totals' => [(string) $demo->files->totalled => 3]];
        }

        return new DeliveryTerms($partLabels, DemoFiles::PART_LABEL, $terms->asOf, trailers: $trailers);
    }

    /** The people of the demo sign as everybody does. */
    private function passwordOf(User $person): string
    {
        foreach (file(storage_path('work/demo-sign-ins'), FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            [$email, $password] = [...explode("\t", $line), ''];
            if ($email === $person->email) {
                return $password;
            }
        }

        throw new \RuntimeException("The password of {$person->email} is no longer in work/demo-sign-ins.");
    }

    private function person(string $name, string $email, bool $isAdministrator = false): User
    {
        $person = User::query()->where('email', $email)->first();
        if ($person !== null) {
            return $person;
        }
        $password = Str::password(16, symbols: false);
        $person = User::query()->create([
            'name' => $name,
            'email' => $email,
            'password' => $password,
            'is_administrator' => $isAdministrator,
            'is_demo' => true,
        ]);
        file_put_contents(storage_path('work/demo-sign-ins'), "{$email}\t{$password}\t{$name}\n", FILE_APPEND);
        chmod(storage_path('work/demo-sign-ins'), 0600);

        return $person;
    }
}
