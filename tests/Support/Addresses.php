<?php

declare(strict_types=1);

namespace Tests\Support;

use App\Models\EyeCheck;
use App\Models\Receipt;
use App\Models\Signature;
use App\Models\SignedState;
use App\Models\SourceConnection;
use App\Models\Tally;
use App\Models\Webhook;
use Illuminate\Routing\Route as Address;
use Illuminate\Support\Facades\Route;

/** Every address of the API, also those that nobody had in mind when a test was written. */
trait Addresses
{
    /** @return iterable<array{string, string, Address}> method, address as it is registered, and the route */
    private function addresses(): iterable
    {
        foreach (Route::getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/v1/')) {
                yield [$route->methods()[0], $route->uri(), $route];
            }
        }
    }

    /** An address of something that is there. */
    private function filled(string $uri, Tally $tally): string
    {
        $path = strtr($uri, [
            '{migration}' => $this->migration->id,
            '{dataset}' => $this->dataset->id,
            '{tally}' => $tally->id,
            '{earlier}' => $tally->id - 1,
            '{delivery}' => 1,
            '{receipt}' => Receipt::query()->orderByRaw("state = 'received' DESC")->firstOrFail()->id,
            '{run}' => $tally->run_id,
            '{sequence}' => 1,
            '{one}' => 1,
            '{other}' => 2,
            '{set}' => 1,
            '{order}' => 1,
            '{report}' => 1,
            '{ruling}' => 1,
            '{filter}' => 1,
            '{offset}' => 0,
            '{claim}' => 1,
            '{eyeCheck}' => $this->eyeCheck($tally)->id,
            '{inspection}' => '019aa000-0000-7000-8000-000000000000',
            '{reportLink}' => 1,
            '{pack}' => 1,
            '{packOrder}' => 1,
            '{signature}' => $this->signature($tally)->id,
            '{place}' => 1,
            '{connection}' => $this->connection()->id,
            '{webhook}' => $this->webhook()->id,
            '{person}' => $this->owner->id,
            '{invitation}' => 1,
            '{session}' => 1,
            '{number}' => 1,
            '{token}' => 'none',
            '{workbook}' => '019aa000-0000-7000-8000-000000000000',
        ]);
        self::assertStringNotContainsString('{', $path, 'Say here what an address is asked with.');

        return $path;
    }

    private function connection(): SourceConnection
    {
        return SourceConnection::query()->firstOrCreate(['migration_id' => $this->migration->id, 'label' => 'Archive'], [
            'kind' => 'sqlite', 'settings' => ['file' => 'archive.sqlite'], 'user_id' => $this->analyst->id,
        ]);
    }

    private function webhook(): Webhook
    {
        return Webhook::query()->firstOrCreate(['migration_id' => $this->migration->id], [
            'url' => 'https://hooks.wherrymoor.example/', 'kinds' => [], 'secret' => 'kept', 'user_id' => $this->analyst->id,
        ]);
    }

    private function signature(Tally $tally): Signature
    {
        return Signature::query()->where('tally_id', $tally->id)->first() ?? Signature::query()->create([
            'tally_id' => $tally->id,
            'act' => 'prepared',
            'user_id' => $this->analyst->id,
            'role' => 'analyst',
            'method' => 'password',
            'words' => 'I have prepared it.',
            'digest' => SignedState::keep('{"format":1}'),
        ]);
    }

    private function eyeCheck(Tally $tally): EyeCheck
    {
        return EyeCheck::query()->where('tally_id', $tally->id)->first() ?? EyeCheck::query()->create([
            'tally_id' => $tally->id,
            'seed' => 'drawn by nobody',
            'confidence' => 0.95,
            'share' => 0.05,
            'sizes' => ['identical' => 1, 'byRule' => 0],
            'populations' => ['identical' => 1, 'byRule' => 0],
            'user_id' => $this->analyst->id,
        ]);
    }
}
