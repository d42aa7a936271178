<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Adapters\Seal\SealKeys;
use App\Adapters\Storage\BlobStore;
use App\Models\KeyRotation;
use App\Models\Pack;
use App\Models\PackOrder;
use App\Models\SealKeyEntry;
use App\Models\Tally;
use NineTally\Core\Seal\CheckLine;
use NineTally\Core\Seal\PackCheck;
use NineTally\Core\Seal\UnusableTimeStamp;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** Keys that follow one another, and a service that vouches for the time of a seal. */
final class SealTest extends TestCase
{
    use Signs;

    private const PORT = 8196;

    public function test_a_key_hands_over_to_the_next_and_packs_carry_what_it_said(): void
    {
        $tally = $this->tallied();
        $first = app(SealKeys::class)->key()->fingerprint();
        $old = $this->pack($tally);
        $body = ['reason' => 'once a year', 'isCompromised' => false, 'password' => 'kept by the lock house'];
        $this->api('POST', '/seal-key/rotations', $body)->assertForbidden();
        $this->analyst->forceFill(['is_administrator' => true])->save();
        $this->api('POST', '/seal-key/rotations', [...$body, 'password' => 'guessed'])->assertUnprocessable();
        self::assertSame($first, app(SealKeys::class)->key()->fingerprint());
        $this->api('POST', '/seal-key/rotations', $body)->assertCreated()->assertJsonPath('earlier.0.fingerprint', $first);
        $new = $this->pack($tally);
        $second = app(SealKeys::class)->key()->fingerprint();
        self::assertNotSame($first, $second);
        self::assertSame($second, $new->seal->key_fingerprint);
        self::assertSame($old->seal->id, $new->seal->previous_id);
        // Both packs fit under the fingerprint that stands in an old report.
        self::assertSame([], $this->differing($old, $first));
        self::assertSame([], $this->differing($new, $first));
        self::assertNotSame([], $this->differing($old, $second));
        // What somebody else may have says nothing of the next.
        $this->api('POST', '/seal-key/rotations', ['isCompromised' => true, 'reason' => 'it was lost'] + $body)->assertCreated();
        $last = $this->pack($tally);
        self::assertNotSame([], $this->differing($last, $first));
        self::assertSame([], $this->differing($last, app(SealKeys::class)->key()->fingerprint()));
    }

    public function test_whoever_dies_while_the_key_is_changed_leaves_the_old_one_or_the_new_one(): void
    {
        $keys = app(SealKeys::class);
        $old = $keys->key()->fingerprint();
        // Before the act is entered: the next one is nothing.
        $next = $keys->prepareNext()->fingerprint();
        self::assertSame($old, $keys->key()->fingerprint());
        // After it: it takes its place when a key is needed.
        foreach ([$old, $next] as $fingerprint) {
            SealKeyEntry::query()->create(['fingerprint' => $fingerprint, 'pem' => 'x']);
        }
        KeyRotation::query()->create([
            'from_fingerprint' => $old, 'to_fingerprint' => $next, 'reason' => 'x', 'user_id' => $this->analyst->id,
        ]);
        self::assertSame($next, $keys->key()->fingerprint());
    }

    public function test_a_service_vouches_for_the_time_of_the_seal_and_anybody_verifies_it_with_openssl(): void
    {
        $folder = storage_path('work/time-stamps-'.bin2hex(random_bytes(4)));
        $service = new Process([base_path('bin/time-stamps'), $folder, (string) self::PORT]);
        $service->start();
        try {
            for ($tries = 0; $tries < 100 && @fsockopen('127.0.0.1', self::PORT) === false; $tries++) {
                usleep(100_000);
            }
            config([
                'nine-tally.time_stamps' => 'http://127.0.0.1:'.self::PORT,
                'nine-tally.time_stamp_authority' => "{$folder}/authority.pem",
            ]);
            $tally = $this->tallied();
            $pack = $this->pack($tally);
            $path = app(BlobStore::class)->path($pack->digest);
            $words = implode("\n", array_column(PackCheck::of($path, $pack->seal->key_fingerprint)->lines, 'words'));
            self::assertStringContainsString('The seal was there at '.now()->format('Y-m-d'), $words);
            $zip = new \ZipArchive;
            $zip->open($path);
            $zip->extractTo("{$folder}/pack");
            exec(
                'cd '.escapeshellarg("{$folder}/pack/moorings-tally-1").
                    ' && openssl ts -verify -data seal/seal.json -in seal/timestamp.tsr -CAfile data/keys/time-stamps.pem 2>&1',
                $said,
                $status,
            );
            self::assertSame(0, $status, implode("\n", $said));
            // Another time stamp, or any byte of it, does not fit.
            $token = (string) $zip->getFromName('moorings-tally-1/seal/timestamp.tsr');
            foreach ([8, intdiv(strlen($token), 2), strlen($token) - 1] as $place) {
                $changed = $token;
                $changed[$place] = chr(ord($changed[$place]) ^ 1);
                copy($path, $other = "{$folder}/changed.zip");
                chmod($other, 0600);
                $forged = new \ZipArchive;
                $forged->open($other);
                $forged->addFromString('moorings-tally-1/seal/timestamp.tsr', $changed);
                $forged->close();
                self::assertSame(['seal/timestamp.tsr'], $this->differingAt($other, $pack->seal->key_fingerprint), "byte {$place}");
            }
        } finally {
            $service->stop();
        }
        // A service that does not answer leaves no pack, and says so.
        try {
            $this->api('POST', "/tallies/{$tally->id}/pack-orders");
        } catch (UnusableTimeStamp) {
        }
        self::assertSame(1, Pack::query()->count());
        self::assertSame(
            'The time stamp cannot be used: the service does not answer.',
            PackOrder::query()->latest('id')->firstOrFail()->problem,
        );
    }

    private function pack(Tally $tally): Pack
    {
        $this->api('POST', "/tallies/{$tally->id}/pack-orders")->assertAccepted();

        return Pack::query()->with('seal')->latest('id')->firstOrFail();
    }

    /** @return list<string> */
    private function differing(Pack $pack, string $fingerprint): array
    {
        return $this->differingAt(app(BlobStore::class)->path($pack->digest), $fingerprint);
    }

    /** @return list<string> files that do not fit */
    private function differingAt(string $path, string $fingerprint): array
    {
        return array_values(array_map(
            static fn(CheckLine $line): string => $line->about,
            array_filter(PackCheck::of($path, $fingerprint)->lines, static fn(CheckLine $line): bool => $line->state === 'differs'),
        ));
    }
}
