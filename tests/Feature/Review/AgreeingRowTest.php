<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** Any key is found, also of a row that agrees and is kept nowhere but in what was delivered. */
final class AgreeingRowTest extends TestCase
{
    public function test_a_row_that_agrees_is_found_by_its_key_with_both_sides(): void
    {
        [$old, $new] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 40) as $berth) {
            $old .= "\" a,\"\"b\",{$berth},\"Ezekiel\nThornøy\",1\n";
            $new = $new."\" a,\"\"b\",{$berth},\"Ezekiel\nThornøy\",".($berth === 7 ? '2' : '1').",t\n";
        }
        $tally = $this->tallied($old, $new);
        $path = "/tallies/{$tally->id}/agreeing-row?key[]=%20a%2C%22b&key[]=";

        $this->api('GET', "{$path}30")
            ->assertOk()
            ->assertJson([
                'isWaiting' => false,
                'record' => [
                    'class' => 'agreed',
                    'key' => '" a,""b",30',
                    'sourceLine' => 60,
                    'targetLine' => 60,
                    'fields' => [
                        ['role' => 'key', 'sourceValue' => ' a,"b'],
                        ['role' => 'key', 'sourceValue' => '30'],
                        [
                            'role' => 'compared',
                            'source' => 'holder',
                            'sourceValue' => "Ezekiel\nThornøy",
                            'targetValue' => "Ezekiel\nThornøy",
                            'finding' => null,
                        ],
                        ['role' => 'compared', 'sourceValue' => '1', 'targetValue' => '1'],
                        ['role' => 'not-compared', 'target' => 'loaded', 'targetValue' => 't'],
                    ],
                ],
            ]);
        $this->api('GET', "{$path}41")
            ->assertOk()
            ->assertJson(['record' => null]);
        // What nobody uses is cleared up; who looks for a key then waits until it is written down again.
        File::cleanDirectory(storage_path('prepared'));
        $this->api('GET', "{$path}30")->assertOk();
        $this->api('GET', "{$path}30")->assertOk()->assertJson(['isWaiting' => false, 'record' => ['sourceLine' => 60]]);
        $this->actingAs($this->person('Nobody Here'))->getJson("/api/v1{$path}30")->assertNotFound();
    }
}
