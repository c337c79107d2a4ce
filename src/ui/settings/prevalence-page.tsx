'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { prevalences, type Prevalence } from '@/core/contract/prevalence';
import type { FamilyPrevalences } from '@/server/shop/prevalences';
import { Choice } from '@/ui/parts/choice';
import { PageHead } from '@/ui/shell/frame';
import { ShellControls } from '@/ui/shell/key-map';
import { send } from '@/ui/shell/request';
import styles from '@/ui/repair/repair.module.css';

const words: Readonly<Record<Prevalence, string>> = {
  common: 'Common',
  ordinary: 'Ordinary',
  seldom: 'Seldom',
  'hardly-ever': 'Hardly ever',
};

/** How common each fault is in this workshop: what a ranking begins with, before anything was found. */
export function PrevalencePage({ families }: { readonly families: readonly FamilyPrevalences[] }) {
  const router = useRouter();
  const [chosen, choose] = useState(families[0].family);
  const [trouble, setTrouble] = useState('');
  const family = families.find((each) => each.family === chosen) ?? families[0];
  const say = async (fault: string, word: string) => {
    setTrouble('');
    try {
      await send('/api/prevalences', { family: family.family, fault, prevalence: word }, 'PUT');
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <PageHead title="How common faults are" actions={<ShellControls />} />
      <div className={styles.layout}>
        <p>
          A ranking begins with how common each fault is among the units that come in, before anything was found. Common
          counts three times ordinary, seldom a third, hardly ever a tenth. Each choice is kept at once.
        </p>
        <div className={styles.beside}>
          <Choice label="Family" value={family.family} onChange={choose}>
            {families.map((each) => (
              <option key={each.family} value={each.family}>
                {each.title}
              </option>
            ))}
          </Choice>
          {trouble && <p role="alert">{trouble}</p>}
        </div>
        <Table className={styles.parts}>
          <TableHead>
            <TableRow>
              <TableCell>Fault</TableCell>
              <TableCell>To begin with</TableCell>
              <TableCell>In this workshop</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {family.faults.map(({ id, title, usual }) => (
              <TableRow key={id}>
                <TableCell>{title}</TableCell>
                <TableCell>{words[usual]}</TableCell>
                <TableCell>
                  <Choice
                    label={`${title}: how common here`}
                    value={family.said[id] ?? usual}
                    onChange={(word) => void say(id, word)}
                  >
                    {prevalences.map((word) => (
                      <option key={word} value={word}>
                        {words[word]}
                      </option>
                    ))}
                  </Choice>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </div>
    </>
  );
}
