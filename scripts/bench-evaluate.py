"""What a scientific script does with the same log: reads it, filters every column, fits the pull with three straight lines."""
import sys

import numpy as np
import pandas as pd
from scipy.optimize import curve_fit
from scipy.signal import butter, sosfiltfilt

table = pd.read_csv(sys.argv[1])
time = table.iloc[:, 0].to_numpy(float)
rate = 1 / np.median(np.diff(time))
low_pass = butter(2, 10, fs=rate, output="sos")
columns = {name: sosfiltfilt(low_pass, table[name].to_numpy(float)) for name in table.columns[1:]}
driven, output = list(columns.values())[:2]
top = int(np.argmax(driven))
up = driven[:top] > 0.05 * driven[:top].max()
x, y = driven[:top][up], output[:top][up]


def three_lines(at, start, before, cut_in, slope, run_out, after):
    first = start + before * np.minimum(at, cut_in)
    second = slope * np.clip(at - cut_in, 0, run_out - cut_in)
    return first + second + after * np.maximum(at - run_out, 0)


most = x.max()
fitted, covariance = curve_fit(three_lines, x, y, p0=[0, 1, 0.2 * most, 2.5, 0.6 * most, 0.5])
print(fitted, np.sqrt(np.diag(covariance)))
