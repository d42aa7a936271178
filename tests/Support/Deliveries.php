<?php

declare(strict_types=1);

namespace Tests\Support;

use App\Models\Receipt;
use App\Models\Tally;
use Illuminate\Testing\TestResponse;

/** Small registers of Wherrymoor, handed over and tallied as a person would. */
trait Deliveries
{
    protected const OLD = "basin,berth,holder,fee\nKB,014,Ezekiel Thornøy,1412.60\nKB,015,Ann  Lee,10.50\nLM,1,Bríd ".
        "O'Marrow,\nLM,2,Ilse,20.00\nNQ,7,x,1\nNQ,7,x,1\n,,y,2\nNQ,8,Hester,3.10\nbad,row\n";

    protected const NEW = "basin,berth,owner,fee,loaded\nKB,015,Ann Lee,10.5,t\nKB,014,EZEKIEL THORNØY,1412.60,t\nLM,1,Bríd ".
        "O'Marrow,7.00,t\nLM,2,Ilse,,t\nOT,9,Wanda,1,t\n";

    protected function announce(string $side, string $name, int $bytes): string
    {
        $id = $this->api('POST', "/datasets/{$this->dataset->id}/receipts", ['side' => $side, 'fileName' => $name, 'bytes' => $bytes])
            ->assertCreated()
            ->json('id');
        self::assertIsString($id);

        return $id;
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    protected function chunk(string $receipt, int $offset, string $bytes): TestResponse
    {
        return $this->call(
            'PUT',
            "/api/v1/receipts/{$receipt}/chunks/{$offset}",
            server: ['CONTENT_TYPE' => 'application/octet-stream', 'HTTP_ACCEPT' => 'application/json'],
            content: $bytes,
        );
    }

    /**
     * Takes received files as one delivery.
     *
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    protected function takeParts(string $side, string ...$receipts): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => $side,
            'parts' => array_map(static fn(string $receipt): array => ['receipt' => $receipt], array_values($receipts)),
        ]);
    }

    /** A file of the source that has arrived whole and waits to be taken. */
    protected function received(string $name, string $content): string
    {
        $receipt = $this->announce('source', $name, strlen($content));
        $this->chunk($receipt, 0, $content)->assertOk();

        return $receipt;
    }

    protected function deliver(string $side, string $content, string $name = 'moorings.csv'): Receipt
    {
        $receipt = $this->announce($side, $name, strlen($content));
        $this->chunk($receipt, 0, $content)->assertOk();
        $this->takeParts($side, $receipt)->assertAccepted();

        return Receipt::query()->findOrFail($receipt);
    }

    /** @param list<array<string, mixed>>|null $pairs */
    protected function match(?array $pairs = null): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => $pairs ?? [['source' => 'holder', 'target' => 'owner'], $same('fee')],
            'leftOut' => ['source' => [], 'target' => ['loaded']],
        ])->assertOk();
    }

    /** @param list<array<string, mixed>>|null $pairs */
    protected function tallied(string $old = self::OLD, string $new = self::NEW, ?array $pairs = null): Tally
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', $old, 'old.csv');
        $this->deliver('target', $new, 'new.csv');
        $this->match($pairs);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ??
            throw new \LogicException('The run has ended without a tally: '.$this->dataset->latestRun()?->problem);
    }
}
