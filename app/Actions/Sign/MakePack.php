<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Actions\Access\TrailChain;
use App\Adapters\Report\Printer;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\Room;
use App\Models\Delivery;
use App\Models\Pack;
use App\Models\PackOrder;
use App\Models\SealEntry;
use App\Models\Tally;
use App\Queries\Sign\PackContent;
use App\Queries\Sign\PackReadme;
use App\Signing\HeldLimits;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Seal\Seal;
use NineTally\Core\Tally\Workspace;

/**
 * Makes the evidence pack of a tally that was ordered: what was compared, found, ruled, proved and signed, as files that anybody can read,
 * in a bag (RFC 8493) that is sealed. It is there as a whole, or not at all.
 */
final readonly class MakePack
{
    /** Zip, and the findings that are written aside before. */
    private const ROOM_A_BYTE = 3;

    private const LEAST_ROOM = 64 * 1024 * 1024;

    public function __construct(
        private PackContent $content,
        private Printer $printer,
        private PackKeys $keys,
        private BlobStore $blobs,
        private Room $room,
        private Connection $database,
        private TrailChain $trail,
        private PackEngineOutput $engineOutput,
    ) {}

    public function __invoke(PackOrder $order): Pack
    {
        $order->update(['state' => 'packing']);
        $tally = $order->tally->load([...HeldLimits::RELATIONS, 'sourceDelivery.user', 'targetDelivery.user']);
        $wasPurged = $tally->purged()->exists();
        if ($order->has_clear_values) {
            $tally->mustHaveContent();
        }
        $bytes = (int) Delivery::query()->whereKey([$tally->source_delivery_id, $tally->target_delivery_id])->sum('bytes');
        $this->room->mustHave(self::LEAST_ROOM + self::ROOM_A_BYTE * $bytes);
        $work = Workspace::make(storage_path('work'));
        try {
            $name = Str::slug($tally->dataset->name)."-tally-{$tally->number}";
            $bag = BagWriter::at("{$work->path}/pack.zip", $name);
            $this->content->write($bag, $tally, $order->has_clear_values, $work->path, $this->printer->print(...));
            if ($order->has_clear_values) {
                ($this->engineOutput)($bag, $tally, $work->path);
            }

            return $this->database->transaction(
                fn(): Pack => $this->sealed($bag, $order, $tally, "{$work->path}/pack.zip", $wasPurged),
            );
        } finally {
            $work->remove();
        }
    }

    /** Seals are chained: until this one is entered, nobody else seals. */
    private function sealed(BagWriter $bag, PackOrder $order, Tally $tally, string $path, bool $wasPurged): Pack
    {
        $this->database->select('SELECT pg_advisory_xact_lock(3, 1)');
        $key = $this->keys->seals->key();
        $this->keys->write($bag);
        $this->database->table('seal_keys')->insertOrIgnore([
            'fingerprint' => $key->fingerprint(), 'pem' => $key->publicPem(), 'created_at' => now(),
        ]);
        $previous = SealEntry::query()->latest('id')->first();
        $about = "{$tally->dataset->migration->name}, {$tally->dataset->name}, tally {$tally->number}";
        $seal = $bag->finish(
            PackContent::info($about, now()->toImmutable()),
            ['README.txt' => PackReadme::of($about, $key, $this->keys->timeStamps->areTaken())],
            $key,
            fn(string $tagManifest): Seal => Seal::over(
                $tagManifest,
                $previous?->digest,
                $this->trail->head(),
                $about.($order->has_clear_values ? ', with deliveries and clear values' : ''),
                now()->toImmutable(),
                $key,
            ),
            $this->keys->timeStamps->areTaken() ? $this->keys->timeStamps->of(...) : null,
        );
        // Not before: whoever delivers or begins a tally would wait while gigabytes are packed.
        $tally->mustNotBePurgedSince($wasPurged);
        $entry = SealEntry::query()->create([
            'digest' => $seal->digest(),
            'statement' => $seal->statement,
            'signature' => base64_encode($seal->signature),
            'key_fingerprint' => $key->fingerprint(),
            'previous_id' => $previous?->id,
        ]);
        $bytes = (int) filesize($path);
        $pack = Pack::query()->create([
            'tally_id' => $tally->id,
            'number' => 1 + (Pack::query()->where('tally_id', $tally->id)->orderByDesc('number')->first()->number ?? 0),
            'digest' => $this->blobs->keepFile($path),
            'bytes' => $bytes,
            'seal_id' => $entry->id,
            'has_clear_values' => $order->has_clear_values,
            'user_id' => $order->user_id,
        ]);
        $order->update(['state' => 'done', 'pack_id' => $pack->id]);

        return $pack;
    }
}
