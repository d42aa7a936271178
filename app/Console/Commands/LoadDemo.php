<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Actions\Board\AddMigration;
use App\Actions\Deliver\AnnouncePart;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\EnterDelivery;
use App\Actions\Deliver\TakePiece;
use App\Actions\Match\DraftOf;
use App\Actions\Match\SaveDraft;
use App\Actions\Tally\StartRun;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Role;
use App\Models\RunState;
use App\Models\User;
use Database\Demo\DemoDataset;
use Database\Demo\Generator;
use Database\Demo\Wherrymoor;
use Illuminate\Console\Command;
use Illuminate\Support\Str;
use NineTally\Core\Row\Side;

/** Loads Wherrymoor Navigation by the same actions as a person takes. Run again it finds its work done. */
final class LoadDemo extends Command
{
    protected $signature = 'nine-tally:demo';

    protected $description = 'Loads the demo migration, with people to sign in as';

    private const MIGRATION = 'Wherrymoor cutover';

    /** A piece as the browser would send it. */
    private const PIECE_BYTES = 4 * 1024 * 1024;

    private const SECONDS_TO_WAIT = 240;

    public function handle(AddMigration $addMigration): int
    {
        $analyst = $this->person('Ruth Osei', 'analyst@wherrymoor.example');
        $owner = $this->person('Tove Lindqvist', 'owner@wherrymoor.example');
        $migration = Migration::query()->where('name', self::MIGRATION)->first();
        if ($migration === null) {
            $migration = $addMigration(['name' => self::MIGRATION, 'source_label' => 'Old register', 'target_label' => 'New register'], $analyst);
            $migration->memberships()->create(['user_id' => $owner->id, 'role' => Role::DataOwner]);
        }
        $folder = storage_path('work/demo');
        @mkdir($folder, 0700, true);
        foreach (Wherrymoor::datasets() as $position => $demo) {
            $dataset = $migration->datasets()->firstOrCreate(['name' => Str::ucfirst($demo->name)]);
            if (! $dataset->tallies()->exists()) {
                $this->line("Loading the demo: {$dataset->name}");
                $this->load($dataset, $demo, (new Generator($demo, Wherrymoor::SEED + $position))->write($folder), $analyst);
            }
        }

        return self::SUCCESS;
    }

    /** @param array{source: string, target: string, truth: string} $paths */
    private function load(Dataset $dataset, DemoDataset $demo, array $paths, User $analyst): void
    {
        foreach (Side::cases() as $side) {
            if ($dataset->latestDelivery($side) === null) {
                $this->deliver($dataset, $side, $paths[$side->value], $analyst);
            }
        }
        app(DraftOf::class)($dataset);
        app(SaveDraft::class)($dataset, $demo->plan(), $analyst);
        $run = app(StartRun::class)($dataset, $analyst);
        for ($waited = 0; $waited < self::SECONDS_TO_WAIT * 5 && ! $run->refresh()->state->isOver(); $waited++) {
            usleep(200_000);
        }
        if ($run->state !== RunState::Done) {
            throw new \RuntimeException("The demo's {$dataset->name} could not be tallied: ".($run->problem ?? "the run is {$run->state->value}"));
        }
    }

    private function deliver(Dataset $dataset, Side $side, string $path, User $analyst): void
    {
        $receipt = app(AnnouncePart::class)($dataset, $side, basename($path), (int) filesize($path), $analyst);
        $file = fopen($path, 'rb') ?: throw new \RuntimeException('The demo file is gone.');
        while (($piece = (string) stream_get_contents($file, self::PIECE_BYTES)) !== '') {
            $receipt = app(TakePiece::class)($receipt, $receipt->received_bytes, $piece);
        }
        fclose($file);
        $receipt->update(['state' => 'reading', 'taking' => ['receipts' => [$receipt->id], 'terms' => (new DeliveryTerms)->toArray()]]);
        app(EnterDelivery::class)([$receipt->refresh()], new DeliveryTerms);
    }

    private function person(string $name, string $email): User
    {
        $person = User::query()->where('email', $email)->first();
        if ($person !== null) {
            return $person;
        }
        $password = Str::password(16, symbols: false);
        $person = User::query()->create(['name' => $name, 'email' => $email, 'password' => $password, 'is_demo' => true]);
        file_put_contents(storage_path('work/demo-sign-ins'), "{$email}\t{$password}\t{$name}\n", FILE_APPEND);
        chmod(storage_path('work/demo-sign-ins'), 0600);

        return $person;
    }
}
