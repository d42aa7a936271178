<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

/** What PrepareTest and PreparedRowsTest have in common. */
trait WideAndLong
{
    protected const WIDE = "basin,band,apr,may\nKB,9-12 m,41.20,41.20\nLM,5-9 m,44,\n,,85.20,41.20\n";

    protected const LONG = "basin,band,month,charge\nKB,9-12 m,may,41.20\nKB,9-12 m,apr,41.2\nLM,5-9 m,apr,44\nLM,5-9 m,may,\n";

    protected const LEAVE_OUT = [
        'id' => 'a',
        'kind' => 'leave-out-rows',
        'condition' => ['column' => 'basin', 'test' => 'is-blank'],
        'reason' => 'the totals',
    ];

    protected const FOLD = [
        'id' => 'b',
        'kind' => 'columns-into-rows',
        'columns' => ['apr', 'may'],
        'namesInto' => 'month',
        'valuesInto' => 'charge',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::WIDE);
        $this->deliver('target', self::LONG);
    }

    /**
     * @param  list<array<string, mixed>>  $preparation
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function trial(array $preparation, string $chosen): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => $preparation,
            'chosen' => $chosen,
        ])->assertOk();
    }

    /**
     * @param  list<array<string, mixed>>  $preparation
     * @param  list<array{source: string, target: string}>|null  $key
     */
    private function keep(array $preparation, ?array $key = null): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => $key ?? [$same('basin'), $same('band'), $same('month')],
            'columnPairs' => $key === null ? [$same('charge')] : [],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => ['source' => ['preparation' => $preparation]],
        ])->assertOk();
    }
}
